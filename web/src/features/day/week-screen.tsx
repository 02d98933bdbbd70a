import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { dayOf, timeOf } from '@/lib/dates'
import { money } from '@/lib/money'
import { minutes } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { Calendars } from './calendars'
import { DayNav } from './day-nav'
import { useWeek, type Week, type WeekRow } from './day-queries'
import { WeekPicture } from './week-picture'

/** Jobs that are told in full at the head: what to lay on the bench now, and after it. */
const FIRST = 3

export function WeekScreen() {
  const [isWhole, setWhole] = useState(false)
  const week = useWeek(isWhole)
  return (
    <Page title="The week" lead={week.data ? leadOf(week.data) : ' '}>
      <DayNav />
      <Asked of={week} what="the week">
        {(found) => (found.computed_at === null ? <NotYet /> : found.units === 0 ? <Notice title="Nothing to do">No unit is in the house. What is taken in stands here with the day by which it is done.</Notice> : <Found week={found} onWhole={() => setWhole(true)} />)}
      </Asked>
    </Page>
  )
}

const leadOf = (week: Week): string => {
  if (!week.computed_at) return ' '
  const saves = week.saves_cents > 0 ? `, about ${money(week.saves_cents)} cheaper than going by promise` : ''
  return `${week.benches === 1 ? 'One bench' : `${week.benches} benches`}, ${week.rule_name}${saves}`
}

const ownersOf = (within: number, answers: number, unanswered: number): string => {
  const last = answers === 0 ? '' : `the last ${answers === 1 ? 'answer' : `${answers} answers`} that ${answers === 1 ? 'was' : 'were'} waited for`
  const still = unanswered === 0 ? '' : `${unanswered === 1 ? 'one that is' : `${unanswered} that are`} waited for still`
  const by = last || still ? `by ${[last, still].filter(Boolean).join(' and ')}` : 'as is usual: none was waited for here yet'
  return `Half of the owners answer within ${within < 90 ? minutes(within) : `${Math.round(within / 60)} hours`} of opening time, ${by}.`
}

function NotYet() {
  const cache = useQueryClient()
  return (
    <Notice title="The week is being worked out" role="status">
      <p>For a house full of units the first time takes a minute or two. Nothing else waits for it.</p>
      <Button className="mt-2" onClick={() => void cache.invalidateQueries({ queryKey: ['week'] })}>
        Look again
      </Button>
    </Notice>
  )
}

function Found({ week, onWhole }: { week: Week; onWhole: () => void }) {
  const bench = week.rows.filter((r) => r.begins !== null)
  return (
    <>
      <p className="text-quiet" role="status">
        Worked out {week.computed_at && `${dayOf(week.computed_at)} at ${timeOf(week.computed_at)}`}.{week.is_stale && <span className="font-semibold text-ink"> Something has changed since: a newer one is on its way.</span>}
        {week.owner_min !== null && ` ${ownersOf(week.owner_min, week.answers, week.unanswered)}`}
      </p>
      {week.unread.length > 0 && <Notice tone="danger" title={`Left out, because they cannot be read: ${week.unread.join(', ')}`} />}
      {bench.length > 0 && (
        <Panel title="Next on the bench">
          <ol className="grid gap-3 md:grid-cols-3">
            {bench.slice(0, FIRST).map((row, n) => (
              <Next key={row.tag} row={row} isFirst={n === 0} />
            ))}
          </ol>
        </Panel>
      )}
      <WeekPicture week={week} onWhole={onWhole} />
      {week.deliveries.length > 0 && <Coming week={week} />}
      <Calendars />
    </>
  )
}

function Next({ row, isFirst }: { row: WeekRow; isFirst: boolean }) {
  return (
    <li className={`rounded-lg border p-3 ${isFirst ? 'border-ink bg-mat/60' : 'border-line'}`}>
      <p className="flex items-baseline justify-between gap-2">
        <Link to={`/bench/${row.tag}`} className="figures inline-flex min-h-11 items-center text-[1.3rem] font-bold underline underline-offset-3">
          {row.tag}
        </Link>
        <span className="text-quiet">{row.begins && `${dayOf(row.begins)}, ${timeOf(row.begins)}`}</span>
      </p>
      <p className="font-semibold">{row.console}</p>
      <p className="text-quiet">
        {row.stage_name}, about {minutes(row.bench_min)} at the bench in all
      </p>
      {row.hands && <p className="text-tiny text-quiet">last: {row.hands}</p>}
      {row.why && <p className="mt-1 text-tiny text-quiet">{row.why}.</p>}
    </li>
  )
}

function Coming({ week }: { week: Week }) {
  return (
    <Panel title="On their way" aside="half of such orders, and nine in ten, are here by then">
      <ul className="divide-y divide-line">
        {week.deliveries.map((d) => (
          <li key={d.tag} className="flex min-h-11 flex-wrap items-center gap-x-4 py-1">
            <span className="figures w-20 font-bold">{d.tag}</span>
            <span className="min-w-0 flex-1 basis-60">{d.name}</span>
            <span>
              {dayOf(d.half)} <span className="text-quiet">to</span> {dayOf(d.nine)}
            </span>
            <span className="w-16">{d.is_late && <Chip tone="brass">late</Chip>}</span>
          </li>
        ))}
      </ul>
    </Panel>
  )
}

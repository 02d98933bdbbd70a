import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useMay, useSession } from '@/api/session'
import type { Acts, DayRow, House } from '@/api/types'
import { daysUntil, promise, timeOf } from '@/lib/dates'
import { useKeys } from '@/lib/use-keys'
import { useSettled } from '@/lib/use-settled'
import { Asked } from '@/ui/asked'
import { Button, KeyCap } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Chip, Notice } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { groupsFor, rowsOf } from './day-groups'
import { DayNav } from './day-nav'
import { useDay } from './day-queries'
import { Tour } from './tour'

const stages = ['taken_in', 'fault_seen', 'isolate', 'agree', 'repair', 'prove', 'hand_back'] as const

export function DayList() {
  const [words, setWords] = useState('')
  const [whole, setWhole] = useState<Acts[]>([])
  const day = useDay(useSettled(words.trim()), whole)
  const mayTakeIn = useMay('take_in')
  const navigate = useNavigate()
  useKeys({ n: mayTakeIn ? () => void navigate('/take-in') : undefined })
  return (
    <Page
      title="The day"
      lead={day.data ? summary(day.data) : ' '}
      actions={
        mayTakeIn && (
          <Link to="/take-in" className="inline-flex min-h-11 items-center rounded-lg border border-ink bg-ink px-4 font-semibold text-paper hover:bg-ink/88">
            Take a unit in
            <span className="ml-2.5" aria-hidden="true">
              <KeyCap>N</KeyCap>
            </span>
          </Link>
        )
      }
    >
      <DayNav count={day.data?.units} />
      {day.data && words === '' && <Tour rows={rowsOf(day.data)} />}
      {(words !== '' || (day.data?.units ?? 0) > 0) && (
        <div className="max-w-md">
          <TextField label="Only those with" hint="An owner, one of us, a console, a drive, a word of the complaint." value={words} maxLength={120} onChange={(e) => setWords(e.target.value)} autoComplete="off" />
        </div>
      )}
      <Asked of={day} what="the day">
        {(house) =>
          house.units === 0 ? (
            <Notice title="No unit in the house">Take one in, and it stands here with what it waits for.</Notice>
          ) : (
            <Groups house={house} onWhole={(acts) => setWhole([...whole, acts])} />
          )
        }
      </Asked>
    </Page>
  )
}

function summary({ units, due }: House): string {
  return `${units} ${units === 1 ? 'unit' : 'units'} in the house, ${due === 0 ? 'none' : due} due today or late`
}

function Groups({ house, onWhole }: { house: House; onWhole: (acts: Acts) => void }) {
  const role = useSession().data?.user?.role
  if (house.groups.length === 0) return <Notice title="None in the house">No unit here holds all of these words. Closed jobs have a list of their own.</Notice>
  return (
    <div className="overflow-hidden rounded-xl border border-line bg-paper">
      <p aria-hidden="true" className={`${ROW} border-b border-line py-1.5 text-tiny text-quiet max-md:hidden`}>
        <span>Tag</span>
        <span>Unit and owner</span>
        <span>Stage</span>
        <span>Waits for</span>
        <span className="text-right">Promised</span>
      </p>
      {groupsFor(role).map((g) => {
        const own = house.groups.find((h) => h.acts === g.id)
        return own && <Group key={g.id} title={g.title} note={g.note} group={own} onWhole={() => onWhole(g.id)} />
      })}
    </div>
  )
}

const ROW = 'grid gap-x-5 gap-y-1.5 px-4 md:grid-cols-[6rem_minmax(0,1.2fr)_8.5rem_minmax(0,1.3fr)_7.5rem] md:items-center'

function Group({ title, note, group, onWhole }: { title: string; note: string; group: House['groups'][number]; onWhole: () => void }) {
  const left = group.count - group.rows.length
  return (
    <section aria-label={title} className="border-b border-line last:border-0">
      <h2 className="flex flex-wrap items-baseline gap-x-3 bg-mat/60 px-4 py-1.5">
        <span className="font-bold">{title}</span>{' '}
        <span className="figures font-semibold">{group.count}</span>{' '}
        <span className="text-tiny text-quiet">{note}</span>
      </h2>
      <ul>
        {group.rows.map((row) => (
          <li key={row.tag} className="border-t border-line first:border-0">
            <Row row={row} acts={group.acts} />
          </li>
        ))}
      </ul>
      {left > 0 && (
        <p className="border-t border-line p-2">
          <Button kind="quiet" onClick={onWhole}>
            Show the other {left}
          </Button>
        </p>
      )}
    </section>
  )
}

function Row({ row, acts }: { row: DayRow; acts: Acts }) {
  return (
    <Link to={`/bench/${row.tag}`} className={`${ROW} py-2.5 hover:bg-mat/50`}>
      <span className="figures text-[1.15rem] font-bold">{row.tag}</span>
      <span className="min-w-0">
        <span className="block font-semibold">
          {row.console} <span className="font-normal text-quiet">· {row.owner_name}</span> {row.is_return && <Chip tone="brass">came back</Chip>}
        </span>
        <span className="block truncate text-quiet">“{row.complaint}”</span>
      </span>
      <Progress row={row} />
      <span className="min-w-0 leading-snug">
        <span className="sr-only">waits for </span>
        {waitsFor(row, acts)}
      </span>
      <Promised row={row} />
    </Link>
  )
}

function waitsFor(row: DayRow, acts: Acts): string {
  if (row.held_until) return `${row.waits_for || 'It dries'} (until ${timeOf(row.held_until)})`
  if (acts === 'part') return `A ${row.wants}: none on the shelf`
  return row.waits_for || 'Nothing: it can go on'
}

/** The way through the house as seven notches; the words say the same. */
function Progress({ row }: { row: DayRow }) {
  const at = stages.indexOf(row.stage as (typeof stages)[number])
  return (
    <span>
      <span className="block font-semibold">{row.stage_name}</span>
      {row.hands && <span className="block truncate text-tiny text-quiet">last: {row.hands}</span>}
      <span className="mt-1 flex gap-1" aria-hidden="true">
        {stages.map((s, n) => (
          <span key={s} className={`h-1.5 w-4 rounded-full ${n < at ? 'bg-verdigris' : n === at ? 'bg-ember' : 'bg-line'}`} />
        ))}
      </span>
      {row.power !== 'out' && (
        <Chip tone="danger" className="mt-1">
          {row.power === 'live' ? 'Mains live' : 'Standby'}
        </Chip>
      )}
    </span>
  )
}

function Promised({ row }: { row: DayRow }) {
  const today = new Date()
  const n = row.promised_on ? daysUntil(row.promised_on, today) : 99
  return (
    <span className="md:text-right">
      <span className="text-tiny text-quiet md:sr-only">promised </span>
      {n <= 0 ? <Chip tone={n < 0 ? 'danger' : 'brass'} className="text-[1rem]! font-semibold">{promise(row.promised_on, today)}</Chip> : promise(row.promised_on, today)}
    </span>
  )
}

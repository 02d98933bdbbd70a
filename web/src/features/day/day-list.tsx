import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useMay, useSession } from '@/api/session'
import type { DayRow } from '@/api/types'
import { daysUntil, promise, timeOf } from '@/lib/dates'
import { useKeys } from '@/lib/use-keys'
import { Asked } from '@/ui/asked'
import { Button, KeyCap } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Chip, Notice } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { groupsFor, holds } from './day-groups'
import { DayNav } from './day-nav'
import { useDay } from './day-queries'
import { Tour } from './tour'

const stages = ['taken_in', 'fault_seen', 'isolate', 'agree', 'repair', 'prove', 'hand_back'] as const
/** Rows of one group that are drawn at first; the rest is a press away. */
const AT_FIRST = 40

export function DayList() {
  const day = useDay()
  const mayTakeIn = useMay('take_in')
  const navigate = useNavigate()
  useKeys({ n: mayTakeIn ? () => void navigate('/take-in') : undefined })
  const today = new Date()
  return (
    <Page
      title="The day"
      lead={day.data ? summary(day.data, today) : ' '}
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
      <DayNav count={day.data?.length} />
      <Asked of={day} what="the day">
        {(rows) => (rows.length === 0 ? <Notice title="No unit in the house">Take one in, and it stands here with what it waits for.</Notice> : <><Tour rows={rows} /><Groups rows={rows} today={today} /></>)}
      </Asked>
    </Page>
  )
}

function summary(rows: DayRow[], today: Date): string {
  const due = rows.filter((r) => r.promised_on && daysUntil(r.promised_on, today) <= 0).length
  return `${rows.length} ${rows.length === 1 ? 'unit' : 'units'} in the house, ${due === 0 ? 'none' : due} due today or late`
}

function Groups({ rows, today }: { rows: DayRow[]; today: Date }) {
  const [words, setWords] = useState('')
  const role = useSession().data?.user?.role
  const shown = words.trim() ? rows.filter((r) => holds(r, words.trim())) : rows
  return (
    <>
      <div className="max-w-md">
        <TextField label="Only those with" hint="An owner, one of us, a console, a drive, a word of the complaint." value={words} maxLength={120} onChange={(e) => setWords(e.target.value)} autoComplete="off" />
      </div>
      {shown.length === 0 && <Notice title="None in the house">No unit here holds all of these words. Closed jobs have a list of their own.</Notice>}
      <div className="overflow-hidden rounded-xl border border-line bg-paper">
        <p aria-hidden="true" className={`${ROW} border-b border-line py-1.5 text-tiny text-quiet max-md:hidden`}>
          <span>Tag</span>
          <span>Unit and owner</span>
          <span>Stage</span>
          <span>Waits for</span>
          <span className="text-right">Promised</span>
        </p>
        {groupsFor(role).map((g) => {
          const own = shown.filter((r) => r.acts === g.id)
          return own.length > 0 && <Group key={g.id} title={g.title} note={g.note} rows={own} today={today} />
        })}
      </div>
    </>
  )
}

const ROW = 'grid gap-x-5 gap-y-1.5 px-4 md:grid-cols-[6rem_minmax(0,1.2fr)_8.5rem_minmax(0,1.3fr)_7.5rem] md:items-center'

function Group({ title, note, rows, today }: { title: string; note: string; rows: DayRow[]; today: Date }) {
  const [isWhole, setWhole] = useState(false)
  const drawn = isWhole ? rows : rows.slice(0, AT_FIRST)
  return (
    <section aria-label={title} className="border-b border-line last:border-0">
      <h2 className="flex flex-wrap items-baseline gap-x-3 bg-mat/60 px-4 py-1.5">
        <span className="font-bold">{title}</span>{' '}
        <span className="figures font-semibold">{rows.length}</span>{' '}
        <span className="text-tiny text-quiet">{note}</span>
      </h2>
      <ul>
        {drawn.map((row) => (
          <li key={row.tag} className="border-t border-line first:border-0">
            <Row row={row} today={today} />
          </li>
        ))}
      </ul>
      {drawn.length < rows.length && (
        <p className="border-t border-line p-2">
          <Button kind="quiet" onClick={() => setWhole(true)}>
            Show the other {rows.length - drawn.length}
          </Button>
        </p>
      )}
    </section>
  )
}

function Row({ row, today }: { row: DayRow; today: Date }) {
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
        {waitsFor(row)}
      </span>
      <Promised row={row} today={today} />
    </Link>
  )
}

function waitsFor(row: DayRow): string {
  if (row.held_until) return `${row.waits_for || 'It dries'} (until ${timeOf(row.held_until)})`
  if (row.acts === 'part') return `A ${row.wants}: none on the shelf`
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

function Promised({ row, today }: { row: DayRow; today: Date }) {
  const n = row.promised_on ? daysUntil(row.promised_on, today) : 99
  return (
    <span className="md:text-right">
      <span className="text-tiny text-quiet md:sr-only">promised </span>
      {n <= 0 ? <Chip tone={n < 0 ? 'danger' : 'brass'} className="text-[1rem]! font-semibold">{promise(row.promised_on, today)}</Chip> : promise(row.promised_on, today)}
    </span>
  )
}

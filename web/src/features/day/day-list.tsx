import { Link } from 'react-router'
import { useMay } from '@/api/session'
import type { DayRow } from '@/api/types'
import { daysUntil, promise } from '@/lib/dates'
import { Chip, Notice, Waiting } from '@/ui/panel'
import { useDay } from './day-queries'

const stages = ['taken_in', 'fault_seen', 'isolate', 'agree', 'repair', 'prove', 'hand_back'] as const

export function DayList() {
  const day = useDay()
  const mayTakeIn = useMay('take_in')
  const today = new Date()
  return (
    <div className="mat-grid h-full overflow-y-auto p-4 lg:p-6">
      <div className="mx-auto max-w-6xl">
        <div className="mb-4 flex flex-wrap items-end justify-between gap-3">
          <div>
            <h1 className="text-[1.55rem] leading-tight font-bold">The day</h1>
            <p className="text-quiet">{day.data ? summary(day.data, today) : ' '}</p>
          </div>
          {mayTakeIn && (
            <Link to="/take-in" className="inline-flex min-h-11 items-center rounded-lg border border-ink bg-ink px-4 font-semibold text-paper hover:bg-ink/88">
              Take a unit in
            </Link>
          )}
        </div>
        {day.isPending && <Waiting what="Fetching the day…" />}
        {day.isError && (
          <Notice tone="danger" title="The day could not be fetched" role="alert">
            {day.error.message}
          </Notice>
        )}
        {day.data?.length === 0 && (
          <Notice title="No unit in the house">Take one in, and it stands here with what it waits for.</Notice>
        )}
        {day.data && day.data.length > 0 && <Rows rows={day.data} today={today} />}
      </div>
    </div>
  )
}

function summary(rows: DayRow[], today: Date): string {
  const due = rows.filter((r) => r.promised_on && daysUntil(r.promised_on, today) <= 0).length
  return `${rows.length} ${rows.length === 1 ? 'unit' : 'units'} in the house, ${due === 0 ? 'none' : due} due today or late`
}

function Rows({ rows, today }: { rows: DayRow[]; today: Date }) {
  return (
    <ul className="overflow-hidden rounded-xl border border-line bg-paper">
      {rows.map((row) => (
        <li key={row.tag} className="border-b border-line last:border-0">
          <Link to={`/bench/${row.tag}`} className="grid gap-x-5 gap-y-1.5 px-4 py-3 hover:bg-mat/50 md:grid-cols-[6rem_minmax(0,1.1fr)_9.5rem_minmax(0,1.3fr)_7.5rem] md:items-center">
            <span className="figures text-[1.15rem] font-bold">{row.tag}</span>
            <span className="min-w-0">
              <span className="block font-semibold">{row.console}</span>
              <span className="block truncate text-quiet">“{row.complaint}”</span>
            </span>
            <Progress row={row} />
            <span className="min-w-0 leading-snug">
              <span className="text-tiny text-quiet">waits for</span>
              <span className="block">{row.waits_for || 'Nothing: it can go on'}</span>
            </span>
            <Promised row={row} today={today} />
          </Link>
        </li>
      ))}
    </ul>
  )
}

/** The way through the house as seven notches; the words say the same. */
function Progress({ row }: { row: DayRow }) {
  const at = stages.indexOf(row.stage as (typeof stages)[number])
  return (
    <span>
      <span className="block font-semibold">{row.stage_name}</span>
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
      <span className="block text-tiny text-quiet">promised</span>
      {n <= 0 ? <Chip tone={n < 0 ? 'danger' : 'brass'} className="text-[1rem]! font-semibold">{promise(row.promised_on, today)}</Chip> : promise(row.promised_on, today)}
    </span>
  )
}

import { Link } from 'react-router'
import { dayOf } from '@/lib/dates'
import { Button } from '@/ui/button'
import { Panel } from '@/ui/panel'
import type { Week, WeekRow } from './day-queries'
import { Promised } from './promised'

/** A band for each job over the days: dark until it is done half of the time, light until nine times in ten, and a flag where it is promised. */
export function WeekPicture({ week, onWhole }: { week: Week; onWhole: () => void }) {
  const first = week.days[0]?.day ?? ''
  return (
    <Panel title="By when each can be fetched" aside={<Key />}>
      <div className="overflow-x-auto">
        <div className="min-w-[60rem]">
          <p aria-hidden="true" className={`${ROW} border-b border-line pb-1 text-tiny text-quiet`}>
            <span>Unit</span>
            <span className="grid" style={{ gridTemplateColumns: `repeat(${week.days.length}, minmax(0, 1fr))` }}>
              {week.days.map((d) => (
                <span key={d.day} className={`text-center leading-tight ${d.is_open ? '' : 'bg-mat'}`}>
                  {dayOf(d.day).slice(0, 3)}
                  <br />
                  <span className="figures text-ink">{Number(d.day.slice(8))}</span>
                </span>
              ))}
            </span>
            <span>Promised</span>
          </p>
          <ul>
            {week.rows.map((row) => (
              <li key={row.tag} className={`${ROW} border-b border-line last:border-0`}>
                <Link to={`/bench/${row.tag}`} className="flex min-h-11 flex-wrap items-center gap-x-2 leading-tight">
                  <span className="figures font-bold underline underline-offset-3">{row.tag}</span>
                  <span className="text-tiny text-quiet">{row.stage_name}</span>
                  {row.hands && <span className="w-full truncate text-tiny text-quiet">last: {row.hands}</span>}
                </Link>
                <Band row={row} week={week} first={first} />
                <span className="py-1 leading-tight">
                  <Promised row={row} />
                  <span className="block text-tiny text-quiet">{wordsOf(row)}</span>
                </span>
              </li>
            ))}
          </ul>
          {week.units > week.rows.length && (
            <Button kind="quiet" className="mt-2" onClick={onWhole}>
              Show the other {week.units - week.rows.length}
            </Button>
          )}
        </div>
      </div>
    </Panel>
  )
}

const ROW = 'grid grid-cols-[10rem_minmax(0,1fr)_14.5rem] items-center gap-x-4'

function Key() {
  return (
    <span className="flex flex-wrap items-center gap-x-3 text-tiny" aria-hidden="true">
      <span className="inline-block h-3 w-6 rounded-sm bg-verdigris" /> done half of the time
      <span className="inline-block h-3 w-6 rounded-sm bg-verdigris/35" /> nine times in ten
      <span className="inline-block h-4 w-1 bg-ember" /> promised
    </span>
  )
}

const wordsOf = (row: WeekRow): string =>
  row.first === null ? 'done, waits to be fetched' : row.half === row.nine ? `done ${dayOf(row.half)}, nine times in ten` : `half ${dayOf(row.half)}, nine in ten ${dayOf(row.nine)}`

function Band({ row, week, first }: { row: WeekRow; week: Week; first: string }) {
  const n = week.days.length
  const at = (day: string) => daysBetween(first, day)
  const share = (days: number) => `${(100 * Math.min(Math.max(days, 0), n)) / n}%`
  const starts = Math.min(row.begins ? at(row.begins.slice(0, 10)) : 0, at(row.half)) // half of the time it is begun sooner
  const promised = row.promised_on ? at(row.promised_on) : null
  return (
    <span aria-hidden="true" className="relative block h-11">
      <span className="absolute inset-0 grid" style={{ gridTemplateColumns: `repeat(${n}, minmax(0, 1fr))` }}>
        {week.days.map((d) => (
          <span key={d.day} className={`border-l border-line ${d.is_open ? '' : 'bg-mat'}`} />
        ))}
      </span>
      <span className="absolute top-3 h-5 rounded-sm bg-verdigris/35" style={{ left: share(starts), width: `calc(${share(at(row.nine) + 1)} - ${share(starts)})` }} />
      <span className="absolute top-3 h-5 rounded-sm bg-verdigris" style={{ left: share(starts), width: `calc(${share(at(row.half) + 1)} - ${share(starts)})` }} />
      {promised !== null && promised >= 0 && promised < n && <span className="absolute top-1 h-9 w-1 rounded-sm bg-ember" style={{ left: `calc(${share(promised + 1)} - 2px)` }} />}
    </span>
  )
}

const daysBetween = (from: string, to: string): number => Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000)

import { useState } from 'react'
import { discClass, percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Panel } from '@/ui/panel'
import type { LearntRow } from './record-queries'

type About = LearntRow['about']
type Kind = { about: About; title: string; of: string; name: string; n: string; tell: (value: number) => string; note: string }

const times = (value: number): string => `${value.toFixed(2)} times`
const seconds = (value: number): string => `${value.toFixed(1)} s`
const months = (value: number): string => `${value.toFixed(0)} months`
const KINDS: readonly Kind[] = [
  { about: 'cause', title: 'Causes', of: 'Drive', name: 'Fault', n: 'Jobs', tell: percent, note: 'The share of units of that drive in which it is the cause. Jobs are counted by how likely the fault was at their end.' },
  { about: 'repair', title: 'Repairs', of: 'Loader', name: 'Repair', n: 'Trials', tell: percent, note: 'Cures with a good part, over the faults that it was tried on.' },
  { about: 'health', title: 'Parts, by what is known of them', of: '', name: 'Parts', n: 'Fitted', tell: percent, note: 'Bad themselves. A part that cured nothing in a unit with another fault was not bad.' },
  { about: 'source', title: 'Lots and donors', of: '', name: 'From', n: 'Fitted', tell: percent, note: 'Bad themselves, against what is usual for such parts.' },
  { about: 'pace', title: 'Minutes of repairs', of: '', name: 'Repair', n: 'Timed', tell: times, note: 'As long as planned. Pauses, and what was written down afterwards, are left out.' },
  { about: 'look', title: 'Minutes of looks', of: '', name: 'Look', n: 'Timed', tell: times, note: 'As long as planned, from what the same hand wrote down before it. Pauses, and what was written down afterwards, are left out.' },
  { about: 'hand', title: 'Hands', of: 'Who', name: 'At', n: 'Timed', tell: times, note: 'As long as others take for the same repairs. It says nothing of how well they last.' },
  { about: 'lasts', title: 'How long repairs last', of: 'Loader', name: 'Repair', n: 'Units', tell: months, note: 'Until one unit of two is back with the same fault. Units that are still away count for as long as they are.' },
  { about: 'row', title: 'What faults look like', of: 'Loader', name: 'Fault, question and answer', n: 'Units', tell: percent, note: 'How often that answer is given where it is that fault: of each question the answer that moved most, from forty units on.' },
  { about: 'playing', title: 'Time to play', of: 'Drive', name: 'Disc', n: 'Units', tell: seconds, note: 'Of healthy units: those that were proven and timed. A start that took nearly twice as long is left out.' },
]
const SHOWN = 8

/** What was learnt, kind by kind: what was taken as true, what the jobs say, how sure that is. */
export function LearntTable({ rows }: { rows: LearntRow[] }) {
  return (
    <>
      {KINDS.map((kind) => {
        const own = rows.filter((r) => r.about === kind.about)
        return own.length > 0 && <OfKind key={kind.about} kind={kind} rows={own} />
      })}
      <p>
        <a href="/api/record/learning.csv" download className="inline-flex min-h-11 items-center underline underline-offset-3">
          All of it as a table (CSV)
        </a>
      </p>
    </>
  )
}

function OfKind({ kind, rows }: { kind: Kind; rows: LearntRow[] }) {
  const [isWhole, setWhole] = useState(false)
  const shown = isWhole ? rows : rows.slice(0, SHOWN)
  const isSure = rows.some((row) => row.low !== null)
  return (
    <Panel title={kind.title} aside={kind.note}>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[40rem] text-left">
          <thead className="text-tiny text-quiet">
            <tr>
              {kind.of && <th className="py-1 font-normal">{kind.of}</th>}
              <th className="py-1 font-normal">{kind.name}</th>
              <th className="text-right font-normal">Was taken as</th>
              <th className="text-right font-normal">The jobs say</th>
              {isSure && <th className="pl-5 font-normal">Nine times in ten between</th>}
              {kind.about === 'cause' && <th className="text-right font-normal">Confirmed</th>}
              <th className="text-right font-normal">{kind.n}</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((row) => (
              <tr key={`${row.of} ${row.name}`} className="border-t border-line">
                {kind.of && <td className="py-2 pr-4">{row.of}</td>}
                <th scope="row" className="py-2 pr-4 font-semibold">
                  {kind.about === 'playing' ? discClass(row.name) : row.name}
                </th>
                <td className="figures text-right text-quiet">{row.was === null ? 'not known' : kind.tell(row.was)}</td>
                <td className="figures text-right font-bold">{kind.tell(row.now)}</td>
                {isSure && <td className="figures pl-5 text-quiet">{row.low === null || row.high === null ? '' : `${kind.tell(row.low)} and ${kind.tell(row.high)}`}</td>}
                {kind.about === 'cause' && <td className="figures text-right">{row.of_confirmed ? `${row.confirmed} of ${row.of_confirmed}` : '–'}</td>}
                <td className="figures text-right">{row.n % 1 === 0 ? row.n : row.n.toFixed(1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {rows.length > SHOWN && (
        <Button className="mt-2" onClick={() => setWhole(!isWhole)}>
          {isWhole ? 'Fewer' : `All ${rows.length}`}
        </Button>
      )}
    </Panel>
  )
}

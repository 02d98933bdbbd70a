import { useEffect, useRef } from 'react'
import { money } from '@/lib/money'
import type { Run } from './practice-queries'

type Line = Run['log'][number]

/** What happened, oldest first as on every tape: at which minute, what the world answered, and what it cost. */
export function Happened({ log }: { log: Run['log'] }) {
  const roll = useRef<HTMLOListElement>(null)
  useEffect(() => {
    if (roll.current) roll.current.scrollTop = roll.current.scrollHeight
  }, [log.length])
  return (
    <aside aria-label="Tape" className="flex min-h-0 flex-col border-line bg-tape max-lg:border-t lg:w-68 lg:shrink-0 lg:border-l xl:w-74">
      <div className="flex min-h-11 items-center justify-between border-b border-dashed border-line px-4">
        <h2 className="text-[1.05rem] font-bold">Tape</h2>
        <span className="text-tiny text-quiet">minute, and what it cost</span>
      </div>
      <ol ref={roll} tabIndex={0} aria-label="What happened" className="min-h-0 flex-1 overflow-y-auto">
        {log.length === 0 && <li className="px-4 py-3 text-quiet">Nothing yet. What is looked at, measured or tried stands here.</li>}
        {log.map((d, n) => (
          <li key={n} className="grid grid-cols-[2.6rem_minmax(0,1fr)] gap-x-2 border-b border-dashed border-line px-4 py-2">
            <span className="figures text-tiny text-quiet">{d.at_min.toFixed(0)}</span>
            <Told line={d} />
          </li>
        ))}
      </ol>
    </aside>
  )
}

function Told({ line }: { line: Line }) {
  return (
    <span className="min-w-0">
      <span className="flex items-baseline justify-between gap-2 text-tiny text-quiet">
        <span>{line.did}</span>
        <span className="figures shrink-0">{money(line.cents)}</span>
      </span>
      <span className="block wrap-anywhere">{line.says}</span>
      {line.mishap && <b className="block text-danger">{line.mishap}</b>}
      {line.beside && <Beside beside={line.beside} />}
    </span>
  )
}

/** A move beside the planner's, where that is told after each. */
function Beside({ beside }: { beside: NonNullable<Line['beside']> }) {
  return (
    <span className="mt-1 block border-l-3 border-ink/40 pl-2 text-tiny">
      {beside.best !== null && (beside.best ? `The planner: ${beside.best} (${money(beside.regret_cents)} cheaper to the end)` : 'As good as the planner’s.')}
      {beside.traps.map((t) => (
        <b key={t} className="block text-danger">
          {t}
        </b>
      ))}
    </span>
  )
}

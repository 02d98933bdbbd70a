import { useState } from 'react'
import { Link } from 'react-router'
import { money } from '@/lib/money'
import { useTitle } from '@/lib/use-title'
import { Button } from '@/ui/button'
import { Notice, Panel, Waiting } from '@/ui/panel'
import { Debrief } from './debrief'
import { FirstGuess } from './first-guess'
import { Looks } from './looks'
import { PracticeBand } from './practice-band'
import { soundOf, useMove, useRun, type Move, type Run } from './practice-queries'
import { Repairs } from './repairs'

/** A practice unit: what can be looked at and tried, what the world answered, and what it has cost so far. */
export function RunScreen({ id }: { id: number }) {
  const asked = useRun(id)
  useTitle(asked.data ? `Practice: ${asked.data.name}` : 'Practice')
  return (
    <div className="flex min-h-full flex-col lg:h-full">
      <PracticeBand />
      {asked.isPending && <Waiting what="Fetching the unit…" />}
      {asked.error && (
        <div className="p-6">
          <Notice tone="danger" title="This practice unit cannot be opened" role="alert">
            <p>{asked.error.message}</p>
            <Link to="/practice" className="inline-flex min-h-11 items-center underline underline-offset-3">
              To the lessons
            </Link>
          </Notice>
        </div>
      )}
      {asked.data && (asked.data.score ? <Debrief run={asked.data} score={asked.data.score} /> : <Playing run={asked.data} />)}
    </div>
  )
}

function Playing({ run }: { run: Run }) {
  const move = useMove(run)
  const [tab, setTab] = useState<'look' | 'repair'>('look')
  const make = (m: Move) => !move.isPending && move.mutate({ ...m, after: run.moves })
  return (
    <div className="min-h-0 flex-1 lg:grid lg:grid-cols-[minmax(0,1fr)_24rem]">
      <section aria-label="What to do" className="min-h-0 space-y-3 overflow-y-auto p-4 lg:px-6">
        <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <h1 className="text-[1.4rem] leading-tight font-bold">
            {run.number}. {run.name}
          </h1>
          <Link to="/practice" className="underline underline-offset-3">
            All lessons
          </Link>
        </div>
        {move.error && (
          <Notice tone="danger" title="Not done" role="alert">
            {move.error.message}
          </Notice>
        )}
        <div role="tablist" aria-label="Look or repair" className="flex gap-2">
          {(['look', 'repair'] as const).map((t) => (
            <button
              key={t}
              type="button"
              role="tab"
              aria-selected={tab === t}
              onClick={() => setTab(t)}
              className={`min-h-11 rounded-lg border px-4 font-semibold ${tab === t ? 'border-ink bg-ink text-paper' : 'border-ink/55 bg-paper'}`}
            >
              {t === 'look' ? 'Look, listen, measure' : 'Repair and try'}
            </button>
          ))}
        </div>
        {tab === 'look' ? <Looks looks={run.looks} isBusy={move.isPending} onLook={(what, mains) => make({ do: 'look', what, ...(mains && { mains }) })} /> : <Repairs repairs={run.repairs} isBusy={move.isPending} onRepair={(what, care, isDonor) => make({ do: isDonor ? 'swap' : 'repair', what, care })} />}
      </section>
      <aside aria-label="The unit so far" className="min-h-0 space-y-3 overflow-y-auto border-line bg-mat/50 p-4 max-lg:border-t lg:border-l">
        <Stands run={run} isBusy={move.isPending} onListen={() => make({ do: 'listen' })} />
        <div className="flex flex-wrap gap-2">
          <Button disabled={move.isPending} onClick={() => make({ do: 'hint' })}>
            A hint ({money(200)})
          </Button>
          {run.is_clean && (
            <Button disabled={move.isPending} onClick={() => make({ do: 'prove' })}>
              Three passes more
            </Button>
          )}
          <Button kind={run.is_clean ? 'act' : 'plain'} disabled={move.isPending} onClick={() => make({ do: 'hand_back' })}>
            {run.is_clean ? 'Hand it back: it works' : 'Hand it back as it is'}
          </Button>
        </div>
        <FirstGuess run={run} isBusy={move.isPending} onGuess={(what, percent) => make({ do: 'guess', what, percent })} />
        <Happened log={run.log} />
      </aside>
    </div>
  )
}

function Happened({ log }: { log: Run['log'] }) {
  return (
    <Panel title="What happened" level={3}>
      {log.length === 0 && <p className="text-quiet">Nothing yet.</p>}
      <ol reversed aria-label="What happened" className="divide-y divide-line">
        {log.toReversed().map((d, n) => (
          <li key={log.length - n} className="py-1.5">
            <span className="text-quiet">{d.did}</span>
            <span className="flex items-baseline justify-between gap-3">
              <b>{d.says}</b>
              <span className="figures text-quiet">{money(d.cents)}</span>
            </span>
            {d.mishap && <span className="block text-danger">{d.mishap}</span>}
            {d.beside && <Beside beside={d.beside} />}
          </li>
        ))}
      </ol>
    </Panel>
  )
}

/** A move beside the planner's, where that is told after each. */
function Beside({ beside }: { beside: NonNullable<Run['log'][number]['beside']> }) {
  return (
    <span className="block border-l-3 border-ink/40 pl-2">
      {beside.best !== null && (beside.best ? `The planner: ${beside.best} (${money(beside.regret_cents)} cheaper to the end)` : 'As good as the planner’s.')}
      {beside.traps.map((t) => (
        <b key={t} className="block text-danger">
          {t}
        </b>
      ))}
    </span>
  )
}

/** Money and minutes, how the unit lies on the bench, what the counter has seen, and what it sounds like. */
function Stands({ run, isBusy, onListen }: { run: Run; isBusy: boolean; onListen: () => void }) {
  return (
    <Panel>
      <p className="flex items-baseline justify-between gap-3">
        <span className="figures text-[1.6rem] leading-none font-bold">{money(run.cents)}</span>
        <span className="figures text-[1.1rem]">{run.minutes.toFixed(0)} min</span>
      </p>
      <p className="mt-1.5 first-letter:uppercase">{run.stands}</p>
      <ul className="text-quiet">
        {run.told.map((t) => (
          <li key={t}>{t}</li>
        ))}
      </ul>
      {run.may_play ? (
        <>
          <p className="mt-2 text-tiny text-quiet">A disc goes in, and this is what it sounds like now:</p>
          <audio controls preload="none" src={soundOf(run)} className="mt-1 h-11 w-full" aria-label="Listen to the unit" />
        </>
      ) : (
        <Button className="mt-2" disabled={isBusy} onClick={onListen}>
          Listen while a disc goes in (2 min)
        </Button>
      )}
    </Panel>
  )
}

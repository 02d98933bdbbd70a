import { useState } from 'react'
import { Link } from 'react-router'
import { money } from '@/lib/money'
import { useKeys } from '@/lib/use-keys'
import { useTitle } from '@/lib/use-title'
import { Button } from '@/ui/button'
import { MainsPlug } from '@/ui/mains-plug'
import { Notice, Waiting } from '@/ui/panel'
import { Tabs } from '@/ui/tabs'
import { Advice, type PlanProp } from './advice'
import { Debrief } from './debrief'
import { Happened } from './happened'
import { Looks } from './looks'
import { PracticeBand } from './practice-band'
import { useMove, useRun, type Move, type Run } from './practice-queries'
import { Repairs } from './repairs'
import { Unit } from './unit'

/** A practice unit: what can be looked at and tried, what the world answered, and what it has cost so far. */
export function RunScreen({ id, plan }: { id: number; plan: PlanProp }) {
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
      {asked.data && (asked.data.score ? <Debrief run={asked.data} score={asked.data.score} /> : <Playing run={asked.data} plan={plan} />)}
    </div>
  )
}

/** Unit, mat and tape in their places on the bench; what can be done is on the mat, and how it ends below it. */
function Playing({ run, plan }: { run: Run; plan: PlanProp }) {
  const move = useMove(run)
  const [tab, setTab] = useState('look')
  // its answer is shown before everything else is asked anew: what is on screen can be gone on with at once
  const isBusy = move.isPending && move.variables.after === run.moves
  const make = (m: Move) => !isBusy && move.mutate({ ...m, after: run.moves })
  const turn = () => make({ do: 'mains', mains: run.is_live ? 'out' : 'live' })
  useKeys({ Enter: run.advice ? () => make(advised(run.advice!)) : undefined, l: turn, s: run.may_play ? undefined : () => make({ do: 'listen' }) })
  const said = run.is_live ? 'Mains live' : 'Mains out'
  const tabs = [
    { id: 'look', name: 'Look, listen, measure', content: <Looks looks={run.looks} isBusy={isBusy} onLook={(what, mains) => make({ do: 'look', what, ...(mains && { mains }) })} /> },
    { id: 'repair', name: 'Repair and try', content: <Repairs repairs={run.repairs} isBusy={isBusy} onRepair={(what, care, isDonor) => make({ do: isDonor ? 'swap' : 'repair', what, care })} /> },
  ]
  return (
    <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
      <MainsPlug said={said} isOut={!run.is_live} label={`${said}: set to ${run.is_live ? 'out' : 'live'}`} onToggle={isBusy ? undefined : turn} />
      <Unit run={run} isBusy={isBusy} onMove={make} />
      <div className="flex min-h-0 min-w-0 flex-1 flex-col max-lg:order-first max-lg:flex-none">
        <section aria-label="What to do" className="mat-grid min-h-0 flex-1 space-y-3.5 overflow-y-auto p-3.5" aria-busy={isBusy}>
          {move.error && (
            <Notice tone="danger" title="Not done" role="alert">
              {move.error.message}
            </Notice>
          )}
          {run.advice && <Advice advice={run.advice} plan={plan} />}
          <Tabs label="Look or repair" tabs={tabs} value={tab} onChange={setTab} />
        </section>
        <Ends run={run} isBusy={isBusy} onMove={make} />
      </div>
      <Happened log={run.log} />
    </div>
  )
}

const advised = ({ do: it, what, care }: NonNullable<Run['advice']>): Move => ({ do: it, what, care })

/** How it goes on from here without another look: a hint, a proof, or home. */
function Ends({ run, isBusy, onMove }: { run: Run; isBusy: boolean; onMove: (move: Move) => void }) {
  return (
    <div role="region" aria-label="Now" className="flex flex-wrap gap-2 border-t-[1.5px] border-ink bg-paper px-3.5 py-2.5 max-lg:sticky max-lg:bottom-0 max-lg:z-20">
      {run.advice ? (
        <Button kind="act" hotkey="Enter" disabled={isBusy} onClick={() => onMove(advised(run.advice!))}>
          Do that
        </Button>
      ) : (
        <Button disabled={isBusy} onClick={() => onMove({ do: 'hint' })}>
          A hint ({money(200)})
        </Button>
      )}
      {run.is_clean && (
        <Button disabled={isBusy} onClick={() => onMove({ do: 'prove' })}>
          Three passes more
        </Button>
      )}
      <Button kind={run.is_clean && !run.advice ? 'act' : 'plain'} className="ml-auto" disabled={isBusy} onClick={() => onMove({ do: 'hand_back' })}>
        {run.is_clean ? 'Hand it back: it works' : 'Hand it back as it is'}
      </Button>
    </div>
  )
}

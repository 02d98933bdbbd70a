import { useState } from 'react'
import type { Procedure } from '@/api/types'
import { timeOf } from '@/lib/dates'
import { useMoment } from '@/lib/use-moment'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Chip, Notice, Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { Gate } from '../frame/gate'
import { isOff, MainsButton, useMains } from '../frame/mains'
import { MatKeys, useMatKeys } from '../frame/mat-keys'
import { PartsThatFit } from '../parts/parts-that-fit'

/** The chosen repair, step by step, each caution at its step; then the trial before the screws go in. */
export function RepairMat({ onTrial }: { onTrial: (repair: string) => void }) {
  const { job } = useBench()
  const own = job.procedure
  if (!own)
    return (
      <>
        <Notice title="Handed back as it is">No repair was agreed. Close the unit and go on.</Notice>
        <Gate backTo={['isolate', 'agree']} />
      </>
    )
  return (
    <MatKeys enter={job.missing.length > 0 ? 'steps' : 'gate'}>
      <Panel title={own.name} aside={`skill: ${own.skill}`}>
        <dl className="grid gap-x-6 gap-y-1 sm:grid-cols-[8.5rem_minmax(0,1fr)]">
          <dt className="text-quiet">Lay out</dt>
          <dd>{own.tools.join(', ')}</dd>
          {own.transfers.length > 0 && (
            <>
              <dt className="text-quiet">Moves across</dt>
              <dd className="font-semibold">{own.transfers.join('; ')}</dd>
            </>
          )}
          <dt className="text-quiet">Goes wrong by</dt>
          <dd>{own.goes_wrong}</dd>
          <dt className="text-quiet">Proved by</dt>
          <dd>{own.proves}</dd>
        </dl>
      </Panel>
      <Steps own={own} onTrial={() => onTrial(own.repair)} />
      <Panel title="Parts that fit" level={3}>
        <PartsThatFit />
      </Panel>
      <Gate backTo={['isolate', 'agree']} />
    </MatKeys>
  )
}

type Step = Procedure['steps'][number]

/** What stands between a step and its being done: the mains, or what has to dry. */
function useInTheWay(step: Step | undefined): { mains: 'live' | 'out' | null; dryAt: string | null } {
  const { job } = useBench()
  const until = step?.until ?? null
  const now = useMoment(until ? [Date.parse(until)] : [])
  const mains = step && isOff(step, job) ? (step.mains === 'live' ? 'live' : 'out') : null
  return { mains, dryAt: until && Date.parse(until) > now ? until : null }
}

function Steps({ own, onTrial }: { own: Procedure; onTrial: () => void }) {
  const { send, isBusy, mayWork } = useBench()
  const [fuse, setFuse] = useState('')
  const next = own.steps.findIndex((s) => !s.is_done)
  const mark = (s: Step, isDone: boolean) => send({ do: 'step', step: s.id, is_done: isDone, fuse }, `${isDone ? 'Done' : 'Not done'}: ${s.text}`)
  const step = own.steps[next]
  const { mains, dryAt } = useInTheWay(step)
  const setMains = useMains()
  const act = !step || !mayWork || dryAt ? undefined : step.is_trial ? onTrial : () => mark(step, true)
  useMatKeys('steps', { Enter: mains ? setMains(mains) : act })
  return (
    <ol className="space-y-2" aria-label="Steps">
      {own.steps.map((s, n) => (
        <li key={s.id} aria-current={n === next ? 'step' : undefined} className={`rounded-xl border bg-paper px-4 py-3 ${n === next ? 'border-ink border-[1.5px]' : 'border-line'}`}>
          <div className="flex items-start gap-3">
            <StepNumber n={n + 1} isDone={s.is_done} />
            <div className="min-w-0 flex-1">
              <p className={`max-w-[70ch] ${s.is_done ? 'text-quiet' : n === next ? 'text-[1.1rem]' : ''}`}>{s.text}</p>
              {s.done_by && <p className="text-tiny text-quiet">done by {s.done_by}</p>}
              {!s.is_done && <Cautions of={s} isNext={n === next} />}
              {n === next && s.reads_fuse && (
                <div className="mt-2 max-w-sm">
                  <TextField label="Printed on the fuse that goes in" hint={`The sheet asks for ${own.fuse_rating}.`} value={fuse} maxLength={60} onChange={(e) => setFuse(e.target.value)} />
                </div>
              )}
            </div>
            {n === next ? <NextButton step={s} mains={mains} dryAt={dryAt} act={isBusy ? undefined : act} /> : s.is_done && !s.is_trial && <UndoButton step={s} isOff={isBusy || !mayWork} onUndo={() => mark(s, false)} />}
          </div>
        </li>
      ))}
    </ol>
  )
}

function StepNumber({ n, isDone }: { n: number; isDone: boolean }) {
  const look = isDone ? 'border-verdigris bg-verdigris text-paper' : 'border-ink/50'
  return <span className={`figures mt-0.5 inline-flex size-7 shrink-0 items-center justify-center rounded-full border font-bold ${look}`}>{isDone ? '✓' : n}</span>
}

function Cautions({ of, isNext }: { of: Step; isNext: boolean }) {
  return (
    <ul className="mt-1.5 space-y-1">
      {of.cautions.map((c) => (
        <li key={c.id} className={isNext ? 'max-w-[75ch] rounded-md bg-brass-soft px-2.5 py-1' : 'inline-block'}>
          {isNext ? (
            <>
              <b className="text-brass">{c.short}.</b> {c.text}
            </>
          ) : (
            <Chip tone="brass" className="mr-1.5">
              {c.short}
            </Chip>
          )}
        </li>
      ))}
    </ul>
  )
}

function NextButton({ step, mains, dryAt, act }: { step: Step; mains: 'live' | 'out' | null; dryAt: string | null; act: (() => void) | undefined }) {
  if (mains) return <MainsButton to={mains} hotkey="Enter" className="shrink-0" />
  return (
    <Button kind="act" hotkey="Enter" disabled={!act} onClick={act} className="shrink-0">
      {dryAt ? `Dry at ${timeOf(dryAt)}` : step.is_trial ? 'Log the trial' : 'Done'}
    </Button>
  )
}

function UndoButton({ step, isOff, onUndo }: { step: Step; isOff: boolean; onUndo: () => void }) {
  return (
    <button type="button" className="min-h-9 shrink-0 text-tiny text-quiet underline underline-offset-2" disabled={isOff} onClick={onUndo} aria-label={`undo: ${step.text}`}>
      undo
    </button>
  )
}

import { useState } from 'react'
import type { Procedure } from '@/api/types'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Chip, Notice, Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { Gate } from '../frame/gate'
import { MatKeys, useMatKeys } from '../frame/mat-keys'
import { PartsThatFit } from '../parts/parts-that-fit'
import { isOff } from '../frame/question-panel'

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

function Steps({ own, onTrial }: { own: Procedure; onTrial: () => void }) {
  const { job, send, isBusy, mayWork } = useBench()
  const [fuse, setFuse] = useState('')
  const next = own.steps.findIndex((s) => !s.is_done)
  const mark = (s: Procedure['steps'][number], isDone: boolean) => send({ do: 'step', step: s.id, is_done: isDone, fuse }, `${isDone ? 'Done' : 'Not done'}: ${s.text}`)
  const step = own.steps[next]
  const wrongMains = step !== undefined && isOff(step, job)
  const setMains = () => send({ do: 'mains', state: job.power === 'live' ? 'out' : 'live' }, job.power === 'live' ? 'Mains out' : 'Mains live')
  const act = !step ? undefined : wrongMains ? setMains : step.is_trial ? onTrial : () => mark(step, true)
  useMatKeys('steps', { Enter: mayWork ? act : undefined })
  return (
    <ol className="space-y-2" aria-label="Steps">
      {own.steps.map((s, n) => (
        <li key={s.id} aria-current={n === next ? 'step' : undefined} className={`rounded-xl border bg-paper px-4 py-3 ${n === next ? 'border-ink border-[1.5px]' : 'border-line'}`}>
          <div className="flex items-start gap-3">
            <span className={`figures mt-0.5 inline-flex size-7 shrink-0 items-center justify-center rounded-full border font-bold ${s.is_done ? 'border-verdigris bg-verdigris text-paper' : 'border-ink/50'}`}>
              {s.is_done ? '✓' : n + 1}
            </span>
            <div className="min-w-0 flex-1">
              <p className={`max-w-[70ch] ${s.is_done ? 'text-quiet' : n === next ? 'text-[1.1rem]' : ''}`}>{s.text}</p>
              {s.done_by && <p className="text-tiny text-quiet">done by {s.done_by}</p>}
              {!s.is_done && (
                <ul className="mt-1.5 space-y-1">
                  {s.cautions.map((c) => (
                    <li key={c.id} className={n === next ? 'max-w-[75ch] rounded-md bg-brass-soft px-2.5 py-1' : 'inline-block'}>
                      {n === next ? (
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
              )}
              {n === next && s.reads_fuse && (
                <div className="mt-2 max-w-sm">
                  <TextField label="Printed on the fuse that goes in" hint={`The sheet asks for ${own.fuse_rating}.`} value={fuse} maxLength={60} onChange={(e) => setFuse(e.target.value)} />
                </div>
              )}
            </div>
            <StepButton isNext={n === next} step={s} isBusy={isBusy || !mayWork} wrongMains={wrongMains} isLive={job.power === 'live'} onMains={setMains} onTrial={onTrial} onMark={(isDone) => mark(s, isDone)} />
          </div>
        </li>
      ))}
    </ol>
  )
}

interface StepButtonProps {
  isNext: boolean
  step: Procedure['steps'][number]
  isBusy: boolean
  wrongMains: boolean
  isLive: boolean
  onMains: () => void
  onTrial: () => void
  onMark: (isDone: boolean) => void
}

function StepButton({ isNext, step, isBusy, wrongMains, isLive, onMains, onTrial, onMark }: StepButtonProps) {
  if (step.is_done && !step.is_trial)
    return (
      <button type="button" className="min-h-9 shrink-0 text-tiny text-quiet underline underline-offset-2" disabled={isBusy} onClick={() => onMark(false)} aria-label={`undo: ${step.text}`}>
        undo
      </button>
    )
  if (!isNext) return null
  if (wrongMains)
    return (
      <Button hotkey="Enter" disabled={isBusy} onClick={onMains} className="shrink-0">
        {isLive ? 'Plug is pulled: mains out' : 'Mains is live now'}
      </Button>
    )
  return (
    <Button kind="act" hotkey="Enter" disabled={isBusy} onClick={step.is_trial ? onTrial : () => onMark(true)} className="shrink-0">
      {step.is_trial ? 'Log the trial' : 'Done'}
    </Button>
  )
}

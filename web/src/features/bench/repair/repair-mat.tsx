import { useEffect, useRef, useState, type ReactNode } from 'react'
import { BOUNDS } from '@/api/bounds'
import type { Procedure } from '@/api/types'
import { timeOf } from '@/lib/dates'
import { useMoment } from '@/lib/use-moment'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Chip, Notice, Panel } from '@/ui/panel'
import { Bar } from '../frame/bar'
import { useBench } from '../frame/bench-context'
import { Gate } from '../frame/gate'
import { useHandsOut } from '../frame/holds'
import { isOff, MainsButton, useMains } from '../frame/mains'
import { MatKeys, useMatKeys } from '../frame/mat-keys'
import { SheetSays } from '../frame/sheet-says'
import { NextIn, useNextIn } from '../opening/next-in'
import { Looks } from '../opening/looks'
import { TakePhoto } from '../photos/take-photo'
import { PartIn } from '../parts/part-in'
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
      <Steps own={own} onTrial={() => onTrial(own.repair)} />
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
      {!own.steps.some((s) => s.takes_part && !s.is_done) && (
        <Panel title="Parts that fit" level={3}>
          <PartsThatFit />
        </Panel>
      )}
      <Gate backTo={['isolate', 'agree']} />
    </MatKeys>
  )
}

type Step = Procedure['steps'][number]

interface Way {
  mains: 'live' | 'out' | null
  /** "Dry at 14:32", "Hands out until 14:32". */
  waits: string
}

/** What stands between a step and its being done: the mains, what has to dry, or charge. */
function useInTheWay(step: Step | undefined): Way {
  const { job } = useBench()
  const until = step?.until ?? null
  const now = useMoment(until ? [Date.parse(until)] : [])
  const charge = useHandsOut(step?.is_inside === true)
  const mains = step && isOff(step, job) ? (step.mains === 'live' ? 'live' : 'out') : null
  if (until && Date.parse(until) > now) return { mains, waits: `Dry at ${timeOf(until)}` }
  return { mains, waits: charge?.until ? `Hands in at ${timeOf(charge.until)}, or measure (E)` : '' }
}

function Steps({ own: procedure, onTrial }: { own: Procedure; onTrial: () => void }) {
  const { send, isBusy, mayWork } = useBench()
  const [fuse, setFuse] = useState('')
  const next = procedure.steps.findIndex((s) => !s.is_done)
  const mark = (s: Step, isDone: boolean) => send({ do: 'step', step: s.id, is_done: isDone, fuse }, `${isDone ? 'Done' : 'Not done'}: ${s.text}`)
  const step = procedure.steps[next]
  const { mains, waits } = useInTheWay(step)
  const opening = useNextIn(step)
  const setMains = useMains()
  const own = !step || step.takes_part ? undefined : step.is_trial ? onTrial : (opening?.act ?? (() => mark(step, true)))
  const act = mayWork && !waits ? own : undefined
  useMatKeys('steps', { Enter: mains ? setMains(mains) : act })
  const done = procedure.steps.filter((s) => s.is_done)
  return (
    <>
      {done.length > 0 && <Done steps={done} onUndo={(s) => mark(s, false)} isOff={isBusy || !mayWork} />}
      <ol className="space-y-2" aria-label="Steps">
        {procedure.steps.map(
          (s, n) =>
            !s.is_done && (
              <StepRow key={s.id} step={s} n={n + 1} isNext={n === next}>
                {n === next && s.reads_fuse && (
                  <div className="mt-2 max-w-sm">
                    <TextField label="Printed on the fuse that goes in" hint={`The sheet asks for ${procedure.fuse_rating}.`} value={fuse} maxLength={60} onChange={(e) => setFuse(e.target.value)} />
                  </div>
                )}
              </StepRow>
            ),
        )}
      </ol>
      {step && mayWork && (
        <Bar>
          <NextButton step={step} n={next + 1} way={{ mains, waits }} opens={opening?.says ?? ''} act={act} />
        </Bar>
      )}
    </>
  )
}

/** The step that is done now in large, with its cautions whole; what comes after it small. */
function StepRow({ step: s, n, isNext, children }: { step: Step; n: number; isNext: boolean; children: ReactNode }) {
  const { job } = useBench()
  const row = useRef<HTMLLIElement>(null)
  const isWayIn = isNext && s.opens_to > 0 && job.mat.has_order // what is undone next is the large one then
  useEffect(() => {
    if (isNext) row.current?.scrollIntoView({ block: 'nearest' })
  }, [isNext])
  return (
    <li ref={row} aria-current={isNext ? 'step' : undefined} className={`flex items-start gap-3 rounded-xl border bg-paper px-4 ${isNext ? 'border-[1.5px] border-ink py-3.5' : 'border-line py-2'}`}>
      <span className="figures mt-0.5 inline-flex size-8 shrink-0 items-center justify-center rounded-full border border-ink/50 font-bold">{n}</span>
      <div className="min-w-0 flex-1">
        <p className={isNext && !isWayIn ? 'max-w-[52ch] text-[1.65rem] leading-tight font-bold' : 'max-w-[70ch] text-quiet'}>{s.text}</p>
        {isNext && <Looks texts={s.details} />}
        {isNext && <SheetSays sheet={s.sheet} atStep />}
        {isNext && s.takes_part && <PartIn />}
        {isNext && s.asks_photo && <TakePhoto of="" moment="before" says={s.text.slice(0, BOUNDS.PhotographAsk.says.maxLength)} label="Photo before" />}
        {isNext && s.opens_to > 0 && <NextIn depth={s.opens_to} />}
        <Cautions of={s} isNext={isNext} />
        {children}
      </div>
    </li>
  )
}

/** What is done shrinks to a line; each can be taken back there. */
function Done({ steps, isOff, onUndo }: { steps: readonly Step[]; isOff: boolean; onUndo: (step: Step) => void }) {
  return (
    <details className="rounded-xl border border-line bg-paper px-4">
      <summary className="min-h-11 content-center">
        <b className="text-verdigris">
          ✓ {steps.length} {steps.length === 1 ? 'step' : 'steps'} done
        </b>
        <span className="text-quiet">, last: {steps.at(-1)?.text}</span>
      </summary>
      <ol className="divide-y divide-line pb-2" aria-label="Steps done">
        {steps.map((s) => (
          <li key={s.id} className="flex items-center justify-between gap-3">
            <span className="text-quiet">
              {s.part || s.text} {s.done_by && <span className="text-tiny">done by {s.done_by}</span>}
            </span>
            {!s.is_trial && !s.takes_part && (
              <button type="button" className="min-h-11 min-w-11 shrink-0 underline underline-offset-2" disabled={isOff} onClick={() => onUndo(s)} aria-label={`undo: ${s.text}`}>
                undo
              </button>
            )}
          </li>
        ))}
      </ol>
    </details>
  )
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

function NextButton({ step, n, way, opens, act }: { step: Step; n: number; way: Way; opens: string; act: (() => void) | undefined }) {
  if (way.mains) return <MainsButton to={way.mains} hotkey="Enter" className="min-h-14! text-[1.25rem]" />
  if (step.takes_part) return <p className="font-semibold">Step {n}: which part goes in? Scan it, pick it, or write down one that has no tag.</p>
  return (
    <Button kind="act" hotkey="Enter" disabled={!act} onClick={act} className="min-h-14! text-[1.25rem]">
      {way.waits || (step.is_trial ? 'Log the trial' : opens || `Step ${n} is done`)}
    </Button>
  )
}

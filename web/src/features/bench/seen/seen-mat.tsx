import { useState } from 'react'
import type { Baseline, Job } from '@/api/types'
import { useKeys } from '@/lib/use-keys'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { ClassMatrix } from './class-matrix'
import { Gate } from '../frame/gate'
import { MatKeys } from '../frame/mat-keys'
import { isOff } from '../frame/mains'
import { useHeld } from '../frame/use-held'
import { Answers, Cautions } from '../frame/question-panel'
import { StageChain } from './stage-chain'

/** Which stage or class is asked now: what somebody picked, or the first that is open; and how the last one is tried again. */
function useCurrent(job: Job) {
  const { onTheWay } = useBench()
  const [picked, setPicked] = useState<{ id: string; again: boolean } | null>(null)
  const all = [...job.baseline, ...job.classes.filter((c) => c.is_supported)]
  const isGiven = (b: Baseline) => onTheWay.some((w) => w.ask.do === 'answer' && w.ask.question === b.question.id)
  const chosen = picked && all.find((b) => b.question.id === picked.id && (picked.again || !b.answer))
  const current = (chosen && !isGiven(chosen) ? chosen : null) ?? all.find((b) => !b.answer && !isGiven(b)) ?? null
  const last = job.tape.findLast((l) => !l.struck_by && all.some((b) => b.answer && b.question.id === l.question))?.question
  return {
    current,
    isAgain: picked !== null && picked.again && picked.id === current?.question.id,
    again: last === undefined ? undefined : () => setPicked({ id: last, again: true }),
    pick: (entry: Baseline) => setPicked({ id: entry.question.id, again: entry.answer !== null }),
  }
}

/** The baseline: how far it gets, and which discs it reads. */
export function SeenMat() {
  const { job } = useBench()
  const { current, isAgain, again, pick } = useCurrent(job)
  useKeys({ r: again })
  const ask = current && <Ask key={`${current.question.id}:${current.answer?.tries ?? 0}`} entry={current} isAgain={isAgain} onAgain={again} />
  const isClass = current !== null && job.classes.includes(current)
  return (
    <MatKeys enter={current && isOff(current.question, job) ? 'answers' : 'gate'}>
      <p className="sr-only" aria-live="polite">
        {current?.question.ask}
      </p>
      {ask}
      <Panel title="How far does it get?" aside="clean shop disc, cover on">
        <StageChain entries={job.baseline} current={isClass ? null : current} onPick={pick} />
      </Panel>
      <Panel title="Which discs does it read?" aside="a class that this model never read is no evidence">
        <Orientation faces={job.drive.label_faces} />
        <ClassMatrix entries={job.classes} current={isClass ? current : null} onPick={pick} />
        <p className="mt-2.5">
          <span className="text-quiet">So far: </span>
          {job.classes_say}
        </p>
      </Panel>
      <Gate />
    </MatKeys>
  )
}

function Ask({ entry, isAgain, onAgain }: { entry: Baseline; isAgain: boolean; onAgain: (() => void) | undefined }) {
  const { question, answer } = entry
  const heading = useHeld()
  const [typed, setTyped] = useState('')
  const seconds = secondsOf(typed)
  const before =
    isAgain && answer
      ? {
          tries: answer.tries ?? 1,
          failed: answer.failed ?? (answer.is_failure ? 1 : 0),
          isFailure: (outcome: string) => question.outcomes.some((o) => o.id === outcome && o.is_failure),
        }
      : null
  return (
    <section aria-label="Asked now" className="rounded-xl border-[1.5px] border-ink bg-paper px-4.5 py-3.5">
      <div className="mb-1.5 flex flex-wrap items-baseline justify-between gap-2">
        <h2 ref={heading} tabIndex={-1} className="text-[1.7rem] leading-tight font-bold outline-none">
          {question.ask}
        </h2>
        {before && (
          <span className="text-quiet">
            so far {before.failed} of {before.tries} failed
          </span>
        )}
      </div>
      <p className="mb-2.5 max-w-[70ch] text-[1.1rem]">{question.how}</p>
      <Cautions cautions={question.cautions} />
      {entry.reference_s !== null && <PlayTime reference={entry.reference_s} value={typed} onChange={setTyped} />}
      <Answers question={question} before={before} more={seconds ? { seconds } : {}} />
      {onAgain && !isAgain && (
        <Button kind="quiet" hotkey="R" onClick={onAgain} className="mt-1.5 px-1!">
          Try the last one again
        </Button>
      )}
    </section>
  )
}

/** Seconds of what somebody typed, or null if it is no time to play. */
const secondsOf = (typed: string): number | null => {
  const value = Number(typed.replace(',', '.'))
  return typed.trim() !== '' && value > 0 && value <= 3600 ? value : null
}

function PlayTime({ reference, value, onChange }: { reference: number; value: string; onChange: (typed: string) => void }) {
  return (
    <div className="mb-3 max-w-72">
      <TextField
        label="Seconds to play"
        hint={`A healthy unit of this model takes ${reference} s. Leave empty if it was not timed.`}
        inputMode="decimal"
        value={value}
        onChange={(e) => onChange(e.target.value)}
        error={value.trim() !== '' && secondsOf(value) === null ? 'A number of seconds, like 14 or 14.5.' : undefined}
      />
    </div>
  )
}

/** A disc put in the wrong way round for the position reads like a dead drive. */
function Orientation({ faces }: { faces: Record<string, string> }) {
  const known = Object.entries(faces)
  if (known.length === 0) return null
  return (
    <p className="mb-2.5">
      <span className="text-quiet">The label side of a disc faces: </span>
      {known.map(([position, side]) => `${side} when it lies ${position}`).join('; ')}.
    </p>
  )
}

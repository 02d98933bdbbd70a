import { useState } from 'react'
import type { AnswerPreview, Question } from './types'
import type { Keys } from '@/lib/use-keys'
import { percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Chip } from '@/ui/panel'
import { Bar } from './bar'
import { HandsOut, useHandsOut } from './holds'
import { useBench } from './bench-context'
import { isOff, MainsButton, MAINS_IS, useMains } from './mains'
import { useMatKeys } from './mat-keys'

interface Props {
  question: Question
  /** Earlier tries of the same question, when it is asked again. */
  before?: { tries: number; failed: number; isFailure: (outcome: string) => boolean } | null
  previews?: AnswerPreview[]
  /** What goes along with the answer: a time to play. */
  more?: { seconds?: number }
  /** What else there is to say of why it is asked; it stands with what each answer would do. */
  aside?: string
  /** They stand in a dialog, and have the keys as long as it is open. */
  inDialog?: boolean
}

/** What stands between the bench and an answer: the mains, or charge where the hand would go. */
function useInTheWay(question: Question) {
  const { job } = useBench()
  const isUnplugged = isOff(question, job)
  const charge = useHandsOut(question.mains === 'out' && question.depth > 0)
  const hands = isUnplugged ? undefined : charge
  return { isUnplugged, hands, isBlocked: isUnplugged || hands !== undefined }
}

/** The answers of a question, each with its number key. None is preselected, coloured or favoured. */
export function Answers({ question, before, previews, more = {}, aside = '', inDialog = false }: Props) {
  const { job, send, isBusy, mayWork } = useBench()
  const [showsPreview, setShowsPreview] = useState(false)
  const setMains = useMains()
  const needed = question.mains === 'live' ? 'live' : 'out'
  const { isUnplugged, hands, isBlocked } = useInTheWay(question)
  const give = (outcome: string, label: string) => {
    const counts = before ? { tries: before.tries + 1, failed: before.failed + (before.isFailure(outcome) ? 1 : 0) } : {}
    send({ do: 'answer', question: question.id, outcome, source: 'bench', ...counts, ...more }, `${question.ask} ${label}`)
  }
  const keys: Keys = {}
  if (mayWork) {
    if (!isBlocked) question.outcomes.forEach((o, n) => (keys[String(n + 1)] = () => give(o.id, o.label)))
    keys['0'] = () => give('cant_tell', "Can't tell")
    if (isUnplugged) keys.Enter = setMains(needed)
    if (previews) keys.w = () => setShowsPreview((on) => !on)
  }
  useMatKeys('answers', keys, { inDialog })
  const answers = (
    <>
      {hands && <HandsOut hold={hands} inDialog={inDialog} />}
      {isUnplugged && mayWork && (
        <div className="mb-2 flex w-fit flex-wrap items-center gap-3 rounded-lg border border-brass/45 bg-brass-soft py-1 pr-1 pl-3">
          <span className="font-semibold">
            This needs the mains {needed}; it is {MAINS_IS[job.power]}.
          </span>
          <MainsButton to={needed} hotkey="Enter" />
        </div>
      )}
      <div className="flex flex-wrap gap-2" role="group" aria-label={`Answers: ${question.ask}`} aria-busy={isBusy}>
        {question.outcomes.map((o, n) => (
          <Button key={o.id} kind="answer" hotkey={String(n + 1)} disabled={isBlocked || !mayWork} onClick={() => give(o.id, o.label)}>
            {o.label}
          </Button>
        ))}
        <span className="ml-auto flex flex-wrap gap-2">
          {!inDialog && <MeasureIt question={question.id} />}
          <Button kind="answer" hotkey="0" disabled={!mayWork} onClick={() => give('cant_tell', "Can't tell")}>
            Can&apos;t tell
          </Button>
        </span>
      </div>
    </>
  )
  return (
    <div>
      {inDialog ? answers : <Bar>{answers}</Bar>}
      {previews && <Previews previews={previews} aside={aside} isShown={showsPreview} onFlip={() => setShowsPreview(!showsPreview)} />}
    </div>
  )
}

/** Where a meter or a calculator of the bench can speak to it. */
function MeasureIt({ question }: { question: string }) {
  const { job, mayWork, measure } = useBench()
  if (!mayWork || !job.measurable.includes(question)) return null
  return (
    <Button className="min-h-14!" hotkey="M" onClick={() => measure(question)}>
      Measure it
    </Button>
  )
}

function Previews({ previews, aside, isShown, onFlip }: { previews: AnswerPreview[]; aside: string; isShown: boolean; onFlip: () => void }) {
  return (
    <>
      <button type="button" className="min-h-11 text-quiet underline underline-offset-2" aria-expanded={isShown} onClick={onFlip}>
        {aside ? 'Why, and what each answer would do (W)' : 'What each answer would do (W)'}
      </button>
      {isShown && aside && <p className="mb-2 max-w-[70ch]">{aside}</p>}
      {isShown && <PreviewTable previews={previews} />}
    </>
  )
}

function PreviewTable({ previews }: { previews: AnswerPreview[] }) {
  return (
    <table className="mt-1 w-full text-left">
      <thead className="text-tiny text-quiet">
        <tr>
          <th className="font-normal">Answer</th>
          <th className="font-normal">Chance</th>
          <th className="font-normal">Then likeliest</th>
          <th className="font-normal">Best repair then</th>
        </tr>
      </thead>
      <tbody>
        {previews.map((a) => (
          <tr key={a.outcome} className="border-t border-line">
            <td className="py-1 pr-2">{a.label}</td>
            <td className="figures pr-2">{percent(a.chance)}</td>
            <td className="pr-2">
              {a.top_fault} <span className="figures">{percent(a.top_p)}</span>
            </td>
            <td>{a.next_repair}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

export function Cautions({ cautions }: { cautions: Question['cautions'] }) {
  if (cautions.length === 0) return null
  return (
    <details className="mb-2.5">
      <summary className="flex min-h-11 flex-wrap items-center gap-1.5">
        {cautions.map((c) => (
          <Chip key={c.id} tone="brass" className="text-[0.9rem]!">
            {c.short}
          </Chip>
        ))}
      </summary>
      <ul className="mt-1.5 list-disc space-y-1 pl-5 text-[0.93rem]">
        {cautions.map((c) => (
          <li key={c.id}>{c.text}</li>
        ))}
      </ul>
    </details>
  )
}

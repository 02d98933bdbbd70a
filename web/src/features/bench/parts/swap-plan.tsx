import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { SwapPlan } from '@/api/types'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Chip, Notice } from '@/ui/panel'
import { useBench } from '../frame/bench-context'

const DEPTHS = { cover_off: 'cover off', drive_open: 'drive open' } as const

/** How another part goes into this console: what stays, what moves, what comes, step by step, and the way back. */
export function SwapPlanDialog({ level, onClose }: { level: string; onClose: () => void }) {
  const { job } = useBench()
  const [fromDonor, setFromDonor] = useState(true)
  const plan = useQuery({
    queryKey: ['swap-plan', job.tag, job.version, level, fromDonor],
    queryFn: () => dataOf(client.GET('/api/jobs/{tag}/swap-plan', { params: { path: { tag: job.tag }, query: { level, from_donor: fromDonor } } })),
    retry: false,
    placeholderData: (before) => before,
  })
  return (
    <Dialog title={plan.data ? `Swap plan: ${plan.data.level_name.toLowerCase()} of ${job.tag}` : 'Swap plan'} open onClose={onClose}>
      <label className="mb-3 inline-flex min-h-11 items-center gap-2">
        <input type="checkbox" className="size-5" checked={fromDonor} onChange={() => setFromDonor(!fromDonor)} />
        The other one sits in a donor still
      </label>
      <Asked of={plan} what="the plan">
        {(found) => <Plan plan={found} />}
      </Asked>
    </Dialog>
  )
}

function Plan({ plan }: { plan: SwapPlan }) {
  const { job, send, isBusy, mayWork } = useBench()
  const [isBack, setBack] = useState(false)
  const steps = isBack ? plan.back : plan.steps
  const [pressed, setPressed] = useState<{ id: string; isDone: boolean } | null>(null)
  const isDone = (id: string) => (isBusy && pressed?.id === id ? pressed.isDone : job.ticks.includes(`${plan.level}:${id}`))
  const toggle = (id: string, text: string) => {
    setPressed({ id, isDone: !isDone(id) })
    send({ do: 'tick', plan: plan.level, step: id, text, is_done: !isDone(id) }, `${isDone(id) ? 'Not done' : 'Done'}: ${text}`)
  }
  return (
    <div className="space-y-3">
      {plan.lost && (
        <Notice tone="danger" title="What is at stake">
          {plan.lost}
        </Notice>
      )}
      {plan.warnings.map((w) => (
        <Notice key={w} tone="brass">
          {w}
        </Notice>
      ))}
      {plan.purpose === 'test' && <Notice title="For a test only">It comes out again at the end: the console keeps its own.</Notice>}
      <Sides plan={plan} />
      {plan.shows.map((s) => (
        <p key={s} className="max-w-[75ch]">
          <b>While testing:</b> {s}
        </p>
      ))}
      <ol className="space-y-2" aria-label={isBack ? 'The way back' : 'Steps of the plan'}>
        {steps.map((s, n) => (
          <StepRow key={s.id} step={s} number={n + 1} isDone={isDone(s.id)} isOff={isBusy || !mayWork} onToggle={() => toggle(s.id, s.text)} />
        ))}
      </ol>
      <div className="flex flex-wrap gap-2">
        {plan.back.length > 0 && <Button onClick={() => setBack(!isBack)}>{isBack ? 'Show the way in' : 'Show how to put everything back'}</Button>}
      </div>
    </div>
  )
}

interface RowProps {
  step: SwapPlan['steps'][number]
  number: number
  isDone: boolean
  isOff: boolean
  onToggle: () => void
}

function StepRow({ step: s, number, isDone, isOff, onToggle }: RowProps) {
  return (
    <li className="rounded-lg border border-line p-2.5">
      <label className="flex cursor-pointer items-start gap-3">
        <input type="checkbox" className="mt-1 size-6 shrink-0" checked={isDone} disabled={isOff} onChange={onToggle} />
        <span className={isDone ? 'text-quiet' : ''}>
          <b className="figures">{number}</b> {s.text}
          {s.details.length > 0 && (
            <ul className="mt-1 list-disc pl-5 text-tiny">
              {s.details.map((d) => (
                <li key={d}>{d}</li>
              ))}
            </ul>
          )}
          <span className="mt-1 flex flex-wrap gap-1">
              <Chip>{DEPTHS[s.depth]}</Chip>
              {s.cautions.map((c) => (
                <Chip key={c} tone="brass">
                  {c}
                </Chip>
              ))}
          </span>
        </span>
      </label>
    </li>
  )
}

/** Two boxes and what goes between them, and the same in words. */
function Sides({ plan }: { plan: SwapPlan }) {
  const rows = [
    ['Moves across from the owner’s part', plan.moves, 'bg-brass-soft text-brass'],
    ['Comes from the other', plan.comes, 'bg-paper'],
    ['Stays, untouched', plan.stays, 'bg-mat'],
  ] as const
  return (
    <dl className="grid gap-1.5">
      {rows.map(([name, list, look]) =>
        list.length === 0 ? null : (
          <div key={name} className="grid gap-x-3 sm:grid-cols-[13rem_minmax(0,1fr)]">
            <dt className="text-quiet">{name}</dt>
            <dd className="flex flex-wrap items-start gap-1">
              {list.map((x) => (
                <span key={x} className={`rounded border border-line px-1.5 ${look}`}>
                  {x}
                </span>
              ))}
            </dd>
          </div>
        ),
      )}
    </dl>
  )
}

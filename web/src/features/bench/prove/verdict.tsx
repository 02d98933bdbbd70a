import type { ReactNode } from 'react'
import type { Job } from '@/api/types'
import { Button } from '@/ui/button'
import { Bar } from '../frame/bar'
import { useBench } from '../frame/bench-context'
import { endsAt } from '../frame/holds'
import { useMains } from '../frame/mains'
import { useMatKeys } from '../frame/mat-keys'
import { useHeld } from '../frame/use-held'
import { useShutting } from '../opening/next-back'

export type Wait = Job['waits'][number]

interface Way {
  says: string
  act: (() => void) | undefined
  does: string
}

/** What stands between the bench and the next try: an open unit, a plug that is in the wrong state, a drive that is not cold or warm. */
function useInTheWay(wait: Wait | undefined): Way | null {
  const { job } = useBench()
  const setMains = useMains()
  const shutting = useShutting()
  const isLive = job.power === 'live'
  const isOpen = job.depth > 0 || job.mat.left > 0
  if (isOpen && job.power !== 'out') return { says: 'Proof counts with the screws in. Pull the plug, then close it up.', act: setMains('out'), does: 'Plug is pulled: mains out' }
  if (isOpen) return { says: 'Proof counts with the screws in: close it up.', act: shutting.act, does: shutting.says }
  if (wait?.bars === 'cold start' && job.power === 'live') return { says: `${wait.text} Pull the plug, and let it stand.`, act: setMains('out'), does: 'Plug is pulled: mains out' }
  if (wait?.until && (isLive || wait.bars === 'cold start')) return { says: wait.text, act: undefined, does: endsAt(wait) }
  if (!isLive) return { says: 'The proof needs the mains live.', act: setMains('live'), does: 'Mains is live now' }
  return null
}

interface VerdictProps {
  good: string
  bad: string
  onGood: () => void
  onBad: () => void
  more?: { says: string; key: string; act: () => void } | undefined
  wait?: Wait | undefined
}

/** Good, or not: 1 and 2 mean the same in every part of the proof. */
export function Verdict({ good, bad, onGood, onBad, more, wait }: VerdictProps) {
  const { mayWork } = useBench()
  const way = useInTheWay(wait)
  const isOn = mayWork && way === null
  useMatKeys('proof', { '1': isOn ? onGood : undefined, '2': isOn ? onBad : undefined, ...(more ? { [more.key]: isOn ? more.act : undefined } : {}), Enter: way?.act })
  return (
    <Bar>
      {way && mayWork && (
        <div className="mb-2 flex w-fit flex-wrap items-center gap-3 rounded-lg border border-brass/45 bg-brass-soft py-1 pr-1 pl-3">
          <span className="font-semibold">{way.says}</span>
          <Button hotkey="Enter" onClick={way.act} disabled={!way.act}>
            {way.does}
          </Button>
        </div>
      )}
      <div className="flex flex-wrap gap-2">
        <Button kind="answer" hotkey="1" disabled={!isOn} onClick={onGood}>
          {good}
        </Button>
        <Button kind="answer" hotkey="2" disabled={!isOn} onClick={onBad}>
          {bad}
        </Button>
        {more && (
          <Button kind="answer" hotkey={more.key} disabled={!isOn} onClick={more.act} className="ml-auto">
            {more.says}
          </Button>
        )}
      </div>
    </Bar>
  )
}

/** What is tried now, in large. */
export function Now({ title, how, children }: { title: string; how: string; children: ReactNode }) {
  const heading = useHeld()
  return (
    <section aria-label="Proven now" aria-live="polite" className="rounded-xl border-[1.5px] border-ink bg-paper px-4.5 py-3.5">
      <h2 ref={heading} tabIndex={-1} className="text-[1.7rem] leading-tight font-bold outline-none">
        {title}
      </h2>
      <p className="mt-1 mb-2 max-w-[70ch] text-[1.1rem]">{how}</p>
      {children}
    </section>
  )
}

/** So many of so many, in words and as a row. */
export function Progress({ done, of, what }: { done: number; of: number; what: string }) {
  return (
    <p className="flex flex-wrap items-center gap-x-3 py-0.5">
      <b className="figures text-[1.1rem]">
        {done} of {of}
      </b>{' '}
      {what}
      <span aria-hidden="true" className="flex flex-wrap gap-1">
        {Array.from({ length: Math.min(of, 40) }, (_, n) => (
          <span key={n} className={`h-2.5 w-4 rounded-full border ${n < done ? 'border-verdigris bg-verdigris' : 'border-ink/40'}`} />
        ))}
      </span>
    </p>
  )
}

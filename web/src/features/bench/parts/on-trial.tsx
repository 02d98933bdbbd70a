import { useState } from 'react'
import type { Question } from '@/api/types'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { discClass, HEALTH_WORDS } from '@/lib/words'
import { useBench } from '../frame/bench-context'
import { isOff, MainsButton } from '../frame/mains'
import { Answers } from '../frame/question-panel'

const OUT = { mains: 'out' }

/** What sits in the unit for trying: while it does, every answer is about it and not about the unit's own part. */
export function OnTrialStrip() {
  const { job, mayWork } = useBench()
  const [asked, setAsked] = useState<Question | null>(null)
  const { on_trial: fitted, asks } = job.configuration
  if (fitted.length === 0) return null
  const short = (id: string) => (job.classes.some((b) => b.question.id === id) ? discClass(id) : job.baseline.find((b) => b.question.id === id)?.name)
  return (
    <section aria-label="In it for trying" className="rounded-xl border-2 border-brass bg-brass-soft px-4 py-2.5">
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2">
        <p className="min-w-64 flex-1">
          <b>In it for trying: {fitted.map((f) => `${f.item} (${f.item.includes(' ') ? '' : `${f.name.toLowerCase()}, `}${HEALTH_WORDS[f.health]})`).join(', ')}.</b> What is answered now
          is about the unit with that in it.
        </p>
        {mayWork && <OwnBack />}
      </div>
      {asks.length > 0 && (
        <p className="mt-1.5 flex flex-wrap items-center gap-2">
          <span>Failed with its own part, look again:</span>
          {asks.slice(0, 4).map((q) => (
            <Button key={q.id} onClick={() => setAsked(q)}>
              {short(q.id) ?? q.ask}
            </Button>
          ))}
        </p>
      )}
      {asked && asks.some((q) => q.id === asked.id) && (
        <Dialog title={asked.ask} open onClose={() => setAsked(null)}>
          <p className="mb-2 text-quiet">{asked.how}</p>
          <Answers question={{ ...asked, kind: 'move' }} inDialog />
        </Dialog>
      )}
    </section>
  )
}

function OwnBack() {
  const { job, send, isBusy } = useBench()
  if (isOff(OUT, job))
    return (
      <span className="flex flex-wrap items-center gap-2">
        <span>To put its own back:</span>
        <MainsButton to="out" />
      </span>
    )
  return (
    <Button disabled={isBusy} onClick={() => send({ do: 'fit', changes: [] }, 'Its own parts are back in')}>
      Own parts are back in
    </Button>
  )
}

/** The places of the unit from the mains to the light, and what sits in each; said in words as well. */
export function Places({ onFit }: { onFit: () => void }) {
  const { job, mayWork, isBusy } = useBench()
  const { places, on_trial: fitted } = job.configuration
  const others = places.filter((p) => p.item)
  return (
    <div>
      <h3 className="mb-1 font-bold">What sits in it</h3>
      <ol className="flex flex-wrap gap-y-1.5" aria-label="Places of the unit">
        {places.map((p, n) => (
          <li key={p.name} className="flex items-center">
            {n > 0 && <span aria-hidden className="h-0.5 w-2 bg-line" />}
            <span className={`rounded-lg border px-2 py-1 ${p.item ? 'border-2 border-brass bg-brass-soft' : 'border-line bg-paper'}`}>
              <span className="block text-tiny text-quiet">{p.name}</span>
              <span className={p.item ? 'figures font-bold' : ''}>{p.item || 'its own'}</span>
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-1.5">
        {others.length === 0 ? 'Every place holds the unit’s own part.' : `${others.map((p) => `${p.name}: ${p.item}`).join('; ')}. Everything else is the unit’s own.`}
      </p>
      {mayWork && (
        <Button onClick={onFit} disabled={isBusy} className="mt-2">
          {fitted.length > 0 ? 'Fit something else to try' : 'Fit a part to try'}
        </Button>
      )}
    </div>
  )
}

import { useState } from 'react'
import { money } from '@/lib/money'
import { FormDialog } from '@/ui/form-dialog'
import { useBench } from '../frame/bench-context'

/** How it ends where nothing is repaired: each end has its words, its price and its guarantee. */
export function EndDialog({ onClose }: { onClose: () => void }) {
  const { job, send, isBusy } = useBench()
  const { ends } = job.agree
  const [picked, setPicked] = useState(ends.find((e) => e.is_likeliest)?.id ?? '')
  const propose = () => {
    send({ do: 'propose', repair: '', end: picked }, ends.find((e) => e.id === picked)?.name ?? '')
    onClose()
  }
  return (
    <FormDialog title="Without a repair" note="What the owner reads on the report, and pays." act="Propose this end" isReady={picked !== ''} isBusy={isBusy} onSend={propose} onClose={onClose}>
      <fieldset className="space-y-1.5">
        <legend className="sr-only">How does it end?</legend>
        {ends.map((e) => (
          <label
            key={e.id}
            className="relative flex min-h-11 cursor-pointer items-baseline justify-between gap-4 rounded-lg border border-line px-3 py-2 has-checked:border-2 has-checked:border-ink has-focus-visible:outline-3 has-focus-visible:outline-verdigris"
          >
            <span>
              <input type="radio" name="end" className="mr-2 size-4 accent-[var(--ink)]" checked={picked === e.id} onChange={() => setPicked(e.id)} />
              <b>{e.name}</b>
              {e.is_likeliest && <span className="text-tiny text-quiet"> · by the findings so far</span>}
              {picked === e.id && <span className="block pl-6 text-tiny text-quiet">{e.says}</span>}
            </span>
            <span className="figures font-semibold">{e.total_cents > 0 ? money(e.total_cents) : 'free'}</span>
          </label>
        ))}
      </fieldset>
    </FormDialog>
  )
}

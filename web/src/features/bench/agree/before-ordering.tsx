import type { Together } from '@/api/types'
import { money } from '@/lib/money'
import { percent } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { useWorkbench } from '../parts/parts-that-fit'

/** Before the job waits for its part: which looks still pay, and whether a second part goes into the same parcel. */
export function BeforeOrdering() {
  const { job } = useBench()
  const bench = useWorkbench(job.tag, job.version)
  if (!job.agree.proposal?.repair) return null
  return <Asked of={bench} what="what to do before ordering">{(found) => (found.together ? <Said together={found.together} /> : null)}</Asked>
}

const euros = (cents: number): string => money(Math.round(Math.abs(cents) / 10) * 10)

function Said({ together: t }: { together: Together }) {
  return (
    <Panel title="Before it is ordered" aside={`about ${Math.round(t.wait_days)} days to wait`}>
      {t.looks.length > 0 ? (
        <>
          <p>These looks still pay: what they may show changes what is ordered.</p>
          <ul className="mt-1 divide-y divide-line">
            {t.looks.map((l) => (
              <li key={l.id} className="flex justify-between gap-4 py-1.5">
                <span>{l.title}</span>
                <span className="shrink-0 text-quiet">saves about {euros(l.saves_cents)} on average</span>
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p>No look pays any more: nothing that is still open would change the order enough.</p>
      )}
      {t.second && <p className="mt-2">{second(t)}</p>}
    </Panel>
  )
}

/** Whether the likeliest second part is ordered with it, in a sentence. */
export function second(t: Together): string {
  const name = `“${t.second_name}” (${money(t.second_cents)}, needed in ${percent(t.p_used)})`
  if (t.two_parcels_cents > 0) return `Order ${name} at once as well, even from another supplier: that saves about ${euros(t.two_parcels_cents)} on average.`
  if (t.one_parcel_cents > 0) return `Order ${name} with it if it comes in the same parcel: that saves about ${euros(t.one_parcel_cents)} on average. In a parcel of its own it does not pay.`
  if (t.p_used < 0.02) return 'Order it alone: no second part is likely enough to go with it.'
  return `Order it alone. The likeliest second part, ${name}, would cost about ${euros(t.one_parcel_cents)} more than it saves.`
}

import { money } from '@/lib/money'
import { useBench } from './bench-context'

/** Shops disagree: what their rules would cost from here, beside the advice. */
export function Schools() {
  const { job } = useBench()
  const best = job.diagnosis.moves[0]
  if (!best) return null
  const top = Math.max(best.expected_cents, ...job.diagnosis.schools.map((s) => s.expected_cents))
  return (
    <>
      <p className="mb-2 text-quiet">On average, in euro, from here to a working unit or a hand-back.</p>
      <dl className="grid gap-x-6 gap-y-1.5">
        <SchoolRow name="The advice (at most)" cents={best.expected_cents} top={top} first={best.title} isBold />
        {job.diagnosis.schools.map((s) => (
          <SchoolRow key={s.id} name={s.name} cents={s.expected_cents} top={top} first={s.first} />
        ))}
      </dl>
    </>
  )
}

function SchoolRow({ name, cents, top, first, isBold = false }: { name: string; cents: number; top: number; first: string; isBold?: boolean }) {
  return (
    <div className="grid grid-cols-[13.5rem_minmax(4rem,1fr)_3.2rem] items-center gap-x-3 md:grid-cols-[13.5rem_minmax(4rem,1fr)_3.2rem_minmax(0,17rem)]">
      <dt className={isBold ? 'font-bold' : ''}>{name}</dt>
      <dd className="contents">
        <span aria-hidden="true" className="h-2 rounded-full bg-mat">
          <span className={`block h-2 rounded-full ${isBold ? 'bg-ink' : 'bg-quiet/60'}`} style={{ width: `${(cents / top) * 100}%` }} />
        </span>
        <span className="figures text-right font-semibold">{money(Math.round(cents / 100) * 100)}</span>
        <span className="text-tiny text-quiet max-md:hidden">begins with: {first}</span>
      </dd>
    </div>
  )
}

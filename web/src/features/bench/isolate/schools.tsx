import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { Move, School } from '@/api/types'
import { money } from '@/lib/money'
import { Asked } from '@/ui/asked'
import { useBench } from '../frame/bench-context'

/** Shops disagree: what their rules would cost from here, beside the advice. */
export function Schools() {
  const { job } = useBench()
  const asked = useQuery({
    queryKey: ['schools', job.tag, job.version],
    queryFn: () => dataOf(client.GET('/api/jobs/{tag}/schools', { params: { path: { tag: job.tag } } })),
    placeholderData: (before) => before,
  })
  const best = job.diagnosis.moves[0]
  if (!best) return null
  return (
    <Asked of={asked} what="what the schools would cost">
      {(schools) => <Rows best={best} schools={schools} />}
    </Asked>
  )
}

function Rows({ best, schools }: { best: Move; schools: School[] }) {
  const top = Math.max(best.expected_cents, ...schools.map((s) => s.expected_cents))
  return (
    <>
      <p className="mb-2 text-quiet">On average, from here to a working unit or a hand-back.</p>
      <dl className="grid gap-x-6 gap-y-1.5">
        <SchoolRow name="The advice (at most)" cents={best.expected_cents} top={top} first={best.title} isBold />
        {schools.map((s) => (
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

import { percent } from '@/lib/words'

/** The likeliest faults, each with its bar and its percentage. */
export function SuspectRows({ rows }: { rows: readonly { id: string; name: string; p: number }[] }) {
  return (
    <ol className="divide-y divide-line">
      {rows.map((s, n) => (
        <li key={s.id} className="grid grid-cols-[1.1rem_minmax(0,1fr)_3.4rem] items-center gap-x-1.5 py-1">
          <span className="figures text-tiny text-quiet">{n + 1}</span>
          <span>
            <span className="text-[1.125rem] leading-tight">{s.name}</span>
            <span aria-hidden="true" className="mt-0.5 block h-1.5 rounded-full bg-mat">
              <span className="block h-1.5 rounded-full bg-ember" style={{ width: `${Math.max(1, s.p * 100)}%`, opacity: 0.45 + 0.55 * Math.min(1, s.p * 2.5) }} />
            </span>
          </span>
          <span className="figures text-right text-[1.25rem] font-bold">{percent(s.p)}</span>
        </li>
      ))}
    </ol>
  )
}

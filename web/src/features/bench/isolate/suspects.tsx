import type { Diagnosis } from '@/api/types'
import { lowerFirst, percent } from '@/lib/words'

/** The likeliest faults with "not on the list" always among them, and what would change the advice. */
export function Suspects({ diagnosis, findings }: { diagnosis: Diagnosis; findings: number }) {
  const leak = diagnosis.parts.find((p) => p.id === 'unlisted')
  const shown = diagnosis.suspects.filter((s) => s.part !== 'unlisted').slice(0, 4)
  const rows = leak ? [...shown, { ...leak, name: 'Not on the list' }] : shown
  const [change] = diagnosis.mind_changes
  return (
    <div className="flex flex-col p-4">
      <h2 className="mb-1 font-bold">
        Suspects after {findings} {findings === 1 ? 'finding' : 'findings'}
      </h2>
      <ol className="divide-y divide-line">
        {rows.map((s, n) => (
          <li key={s.id} className="grid grid-cols-[1.2rem_minmax(0,1fr)_3.4rem] items-center gap-x-2 py-1.5">
            <span className="figures text-tiny text-quiet">{s.id === 'unlisted' ? '–' : n + 1}</span>
            <span>
              <span className="leading-tight">{s.name}</span>
              <span aria-hidden="true" className="mt-0.5 block h-1.5 rounded-full bg-mat">
                <span className={`block h-1.5 rounded-full ${s.id === 'unlisted' ? 'bg-quiet' : 'bg-ember'}`} style={{ width: `${Math.max(1, s.p * 100)}%`, opacity: 0.45 + 0.55 * Math.min(1, s.p * 2.5) }} />
              </span>
            </span>
            <span className="figures text-right text-[1.1rem] font-bold">{percent(s.p)}</span>
          </li>
        ))}
      </ol>
      <p className="mt-auto pt-2 text-[0.93rem] text-quiet">
        {change ? (
          <>
            Would change my mind: {lowerFirst(change.question)} <b>{change.answer}</b> ({percent(change.chance)}). Then: {lowerFirst(change.next_repair)}.
          </>
        ) : (
          'No open answer would change the best repair: stop asking.'
        )}
      </p>
    </div>
  )
}

import type { Diagnosis } from '@/api/types'
import { lowerFirst, percent } from '@/lib/words'
import { SuspectRows } from '@/ui/suspect-rows'
import { Term } from '@/ui/term'

const MOST = 5

/** The likeliest faults with "not on the list" always among them, and what would change the advice. */
export function Suspects({ diagnosis, findings }: { diagnosis: Diagnosis; findings: number }) {
  const leak = diagnosis.parts.find((p) => p.id === 'unlisted')
  const known = diagnosis.suspects.filter((s) => s.part !== 'unlisted')
  const rows = known.slice(0, MOST)
  const others = Math.max(0, 1 - (leak?.p ?? 0) - rows.reduce((sum, s) => sum + s.p, 0))
  const [change] = diagnosis.mind_changes
  return (
    <div className="flex flex-col p-4">
      <h2 className="mb-1 font-bold">
        Suspects after {findings} {findings === 1 ? 'finding' : 'findings'}
      </h2>
      <SuspectRows rows={rows} />
      <p className="flex flex-wrap justify-between gap-x-4 border-t border-line py-1.5">
        <span>
          Others <b className="figures">{percent(others)}</b>
        </span>
        {leak && (
          <span>
            <Term word="not on the list" says="Not on the list" /> <b className="figures">{percent(leak.p)}</b>
          </span>
        )}
      </p>
      <p className="mt-auto pt-2 text-quiet">
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

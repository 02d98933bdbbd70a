import { useBench } from './bench-context'

export const DEPTHS = ['Closed up', 'Cover off', 'Drive open', 'Deck out'] as const

/** How far the unit is open: steps set it, and a hand can. */
export function Depths() {
  const { job, send, isBusy, mayWork } = useBench()
  return (
    <fieldset>
      <legend className="mb-1 text-tiny text-quiet">How far is it open?</legend>
      <div className="grid grid-cols-2 gap-1">
        {DEPTHS.map((name, n) => (
          <button
            key={name}
            type="button"
            aria-pressed={job.depth === n}
            disabled={isBusy || !mayWork}
            onClick={() => job.depth !== n && send({ do: 'depth', depth: n }, name)}
            className="min-h-9 rounded-md border border-ink/45 px-1.5 text-tiny aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
          >
            {name}
          </button>
        ))}
      </div>
      {job.wet.length > 0 && <p className="mt-1.5 rounded-md bg-brass-soft px-2 py-1 text-tiny text-brass">Wetted with cleaner: {job.wet.join(', ').toLowerCase()}. Dry before the mains is live.</p>}
    </fieldset>
  )
}

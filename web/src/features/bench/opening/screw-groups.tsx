import { useState } from 'react'
import { useBench } from '../frame/bench-context'
import { letterOf, stateName } from './mat-picture'
import type { MatGroup, MatPlace } from './mat-queries'
import { PlaceForm } from './place-form'

/** Every group of screws in words, place by place; one is pressed to say that it is not simply its own screw. */
export function ScrewGroups({ groups }: { groups: readonly MatGroup[] }) {
  const { mayWork } = useBench()
  const [picked, setPicked] = useState('')
  if (groups.length === 0) return <p className="text-quiet">The sheet names no screws here.</p>
  return (
    <ul className="divide-y divide-line">
      {groups.map((g, n) => {
        const at = g.places.findIndex((p) => p.id === picked)
        return (
          <li key={g.id} className="py-1.5">
            <p>
              <b className="figures mr-1.5 inline-flex size-7 items-center justify-center rounded-full border border-ink">{letterOf(n)}</b>
              <b>
                {g.places.length} × {g.screw}
              </b>{' '}
              {g.name}
              {g.captive && <span className="text-quiet"> (they stay in their holes)</span>}
            </p>
            <div className="mt-1 flex flex-wrap gap-1.5">
              {g.places.map((p, k) => (
                <PlaceButton key={p.id} place={p} n={k + 1} isPicked={p.id === picked} isOff={!mayWork} onPick={() => setPicked(p.id === picked ? '' : p.id)} />
              ))}
            </div>
            {at >= 0 && <PlaceForm key={picked} group={g} place={g.places[at]!} name={`${g.name}, ${at + 1}`} onDone={() => setPicked('')} />}
          </li>
        )
      })}
    </ul>
  )
}

function PlaceButton({ place: p, n, isPicked, isOff, onPick }: { place: MatPlace; n: number; isPicked: boolean; isOff: boolean; onPick: () => void }) {
  const isOdd = p.state !== 'in' && p.state !== 'out'
  return (
    <button
      type="button"
      aria-expanded={isPicked}
      disabled={isOff}
      onClick={onPick}
      className={`min-h-11 rounded-lg border px-2.5 text-tiny ${isOdd ? 'border-brass/45 bg-brass-soft text-brass' : p.state === 'out' ? 'border-ink border-dashed' : 'border-ink/45'}`}
    >
      <span className="figures font-bold">{n}</span> {stateName(p.state)}
      {p.why && `: ${p.why}`}
    </button>
  )
}

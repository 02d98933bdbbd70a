import { useState } from 'react'
import type { Path } from '@/api/types'
import { percent } from '@/lib/words'
import { Choice } from '@/ui/field'

const SAYS = { pass: 'passed', fail: 'failed', open: 'open' } as const

/** One chain from the supply to what should happen: each link passed, failed or open, and the test that halves the rest. */
export function SignalPath({ paths }: { paths: Path[] }) {
  const likeliest = [...paths].sort((a, b) => b.p - a.p)[0]
  const [picked, setPicked] = useState<string | null>(null)
  const path = paths.find((p) => p.id === picked) ?? likeliest
  if (!path) return <p className="text-quiet">This drive has no path drawn.</p>
  return (
    <div className="space-y-3">
      <Choice label="Which path?" inline choices={paths.map((p) => ({ id: p.id, label: `${p.title} ${percent(p.p)}` }))} value={path.id} onChange={setPicked} />
      <ol className="flex flex-wrap gap-y-3" aria-label={`Links: ${path.title}`}>
        {path.links.map((link, n) => (
          <li key={link.id} className="flex items-center">
            {n > 0 && <span aria-hidden="true" className={`h-0.5 w-4 ${link.state === 'open' ? 'bg-line' : link.state === 'pass' ? 'bg-verdigris' : 'bg-ember'}`} />}
            <span
              className={`rounded-lg border px-2.5 py-1 leading-tight ${
                link.state === 'pass' ? 'border-verdigris bg-verdigris-soft text-verdigris' : link.state === 'fail' ? 'border-ember bg-ember-soft text-ember-deep' : 'border-ink/45 bg-paper'
              }`}
            >
              <span className="block font-semibold">{link.name}</span>
              <span className="text-tiny">
                <span aria-hidden="true">{link.state === 'pass' ? '✓ ' : link.state === 'fail' ? '✕ ' : '· '}</span>
                {SAYS[link.state]} <b className="figures">{percent(link.p)}</b>
              </span>
            </span>
          </li>
        ))}
      </ol>
      <p className="max-w-[78ch]">
        {path.next_ask ? (
          <>
            <b>The halving test next:</b> {path.next_ask} It leaves {percent(path.before)} of this path’s suspicion on one side, {percent(path.behind)} on the other.
          </>
        ) : (
          'Every test of this path has been done.'
        )}
      </p>
    </div>
  )
}

import { Link } from 'react-router'
import { useBench } from '../frame/bench-context'

/** What cannot be done on the bench as it is, one line for each reason, and the way to what the shop has to do it with. */
export function Barred() {
  const { job } = useBench()
  const { barred } = job.diagnosis
  const count = barred.reduce((n, b) => n + b.titles.length, 0)
  return (
    <section aria-label="Not possible now" className="rounded-xl border border-line bg-paper px-4 py-2">
      <div className="flex flex-wrap items-center justify-between gap-x-4">
        <h2 className="font-bold">{count === 0 ? 'Everything on the list can be done now' : 'Not possible now'}</h2>
        <Link to="/shop/has" className="inline-flex min-h-11 items-center px-3 underline underline-offset-3">
          What this shop has
        </Link>
      </div>
      <ul className="divide-y divide-line">
        {barred.map((b) => (
          <li key={b.why}>
            <details>
              <summary className="min-h-11 cursor-pointer content-center">
                {b.why} <span className="text-quiet">{b.titles.length === 1 ? 'One step.' : `${b.titles.length} steps.`}</span>
              </summary>
              <ul className="list-disc pb-2 pl-9 text-quiet">
                {b.titles.map((t) => (
                  <li key={t}>{t}</li>
                ))}
              </ul>
            </details>
          </li>
        ))}
      </ul>
    </section>
  )
}

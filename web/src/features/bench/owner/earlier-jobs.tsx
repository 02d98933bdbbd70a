import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import { dayOf } from '@/lib/dates'
import { Asked } from '@/ui/asked'
import { Chip } from '@/ui/panel'

/** The other jobs of this unit and of its owner. */
export function EarlierJobs({ tag }: { tag: string }) {
  const earlier = useQuery({ queryKey: ['earlier', tag], queryFn: () => dataOf(client.GET('/api/jobs/{tag}/earlier', { params: { path: { tag } } })) })
  return (
    <section aria-label="Other jobs of this owner" className="space-y-1">
      <h3 className="font-bold">Other jobs of this owner</h3>
      <Asked of={earlier} what="the other jobs">
        {(jobs) =>
          jobs.length === 0 ? (
            <p className="text-quiet">None: this is the first.</p>
          ) : (
            <ul className="divide-y divide-line">
              {jobs.map((j) => (
                <li key={j.tag} className="flex flex-wrap items-center gap-x-3">
                  <Link to={`/bench/${j.tag}`} className="figures inline-flex min-h-11 items-center font-semibold underline underline-offset-3">
                    {j.tag}
                  </Link>
                  <span>{j.console}</span>
                  <span className="text-quiet">
                    {j.outcome}
                    {j.closed_at && `, ${dayOf(j.closed_at)}`}
                  </span>
                  {j.is_covered && <Chip tone="clear">inside its guarantee</Chip>}
                </li>
              ))}
            </ul>
          )
        }
      </Asked>
    </section>
  )
}

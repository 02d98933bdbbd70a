import { Link } from 'react-router'
import { sinceWhen } from '@/lib/dates'
import { Asked } from '@/ui/asked'
import { PrintLabels } from '@/ui/labels'
import { Notice, Panel } from '@/ui/panel'
import { ShelfPage } from './shelf-page'
import { useAway } from './shelf-queries'

/** Owners' parts that are out of their units: never stock, and chased until they are back. */
export function ShelfAway() {
  const away = useAway()
  return (
    <ShelfPage lead="What belongs to an owner and is out of its unit. It is nobody's stock, and its unit does not leave without it.">
      <Asked of={away} what="what is out of its unit">
        {(found) =>
          found.length === 0 ? (
            <Notice title="Everything is in its unit">When an owner&apos;s board or drive leaves its console, it gets a tag from the job and stands here until it is back.</Notice>
          ) : (
            <Panel>
              <ul className="divide-y divide-line">
                {found.map((p) => (
                  <li key={p.tag} className="flex flex-wrap items-center gap-x-4 py-1.5">
                    <Link to={`/shelf/parts/${p.tag}`} className="figures inline-flex min-h-11 items-center font-bold underline underline-offset-2">
                      {p.tag}
                    </Link>
                    <span>
                      <b>{p.level_name}</b> of{' '}
                      <Link to={`/bench/${p.owner_job}`} className="figures inline-flex min-h-11 min-w-11 items-center underline underline-offset-2">
                        {p.owner_job}
                      </Link>
                      , lies {p.place || 'nobody wrote where'}
                    </span>
                    <span className="text-quiet">{sinceWhen(p.away_since!)}</span>
                  </li>
                ))}
              </ul>
              <PrintLabels tags={found.map((p) => p.tag)} className="mt-2">Print their labels</PrintLabels>
            </Panel>
          )
        }
      </Asked>
    </ShelfPage>
  )
}

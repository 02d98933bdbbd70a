import { useState } from 'react'
import { Link } from 'react-router'
import { useMay } from '@/api/session'
import type { Wanted } from '@/api/types'
import { promise } from '@/lib/dates'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel } from '@/ui/panel'
import { OrderDialog } from './order-dialog'
import type { KindStart } from './kind-fields'
import { ShelfPage } from './shelf-page'
import { useWanted } from './shelf-queries'

/** What open jobs wait for and who should get it, and what has run low. */
export function ShelfWanted() {
  const wanted = useWanted()
  const may = useMay('shelf')
  const [ordering, setOrdering] = useState<KindStart | null>(null)
  return (
    <ShelfPage lead="What open jobs wait for, who should get it, and what has run low.">
      <Asked of={wanted} what="what is wanted">
        {(found) => (
          <>
            {found.scarce.length === 0 && <Notice title="No open job waits for a part">A job waits once a repair with a part is proposed, until a part is taken for it.</Notice>}
            {found.scarce.map((s) => (
              <ScarcePanel key={s.level} scarce={s} onOrder={may ? () => setOrdering({ level: s.level, code: '', name: '' }) : undefined} />
            ))}
            <Panel title="Run low" aside="orders on their way counted">
              {found.short.length === 0 && <p className="text-quiet">Nothing is below what there should be at least.</p>}
              <ul className="divide-y divide-line">
                {found.short.map((k) => (
                  <li key={k.code} className="flex flex-wrap items-center justify-between gap-2 py-1.5">
                    <span>
                      <b>{k.name}</b> <span className="figures text-quiet">{k.code}</span>
                      <span className="block">
                        <span className="figures font-bold">{k.here}</span> here, <span className="figures">{k.coming}</span> on the way; there should be <span className="figures">{k.least}</span>
                      </span>
                    </span>
                    {may && <Button onClick={() => setOrdering({ level: k.level, code: k.code, name: k.name })}>Order it</Button>}
                  </li>
                ))}
              </ul>
            </Panel>
          </>
        )}
      </Asked>
      {ordering && <OrderDialog start={ordering} onClose={() => setOrdering(null)} />}
    </ShelfPage>
  )
}

function ScarcePanel({ scarce: s, onOrder }: { scarce: Wanted['scarce'][number]; onOrder: (() => void) | undefined }) {
  const next = s.next_tag ? `${s.next_tag} is expected in about ${Math.round(s.next_days)} days` : `nothing is ordered; a new order takes about ${Math.round(s.next_days)} days`
  return (
    <Panel
      title={s.level_name}
      aside={
        <>
          <span className="figures font-bold text-ink">{s.wanted}</span> {s.wanted === 1 ? 'job wants one' : 'jobs want one'}, <span className="figures font-bold text-ink">{s.here}</span> here
        </>
      }
    >
      {s.given.length > 0 && (
        <>
          <p className="mb-1 text-quiet">Proposed, by promise and chance of success; nothing is taken yet:</p>
          <ul className="divide-y divide-line">
            {s.given.map((g) => (
              <li key={g.job} className="flex flex-wrap items-center gap-x-3 py-1.5">
                <Link to={`/bench/${g.job}`} className="figures inline-flex min-h-11 items-center font-bold underline underline-offset-2">
                  {g.job}
                </Link>
                gets
                <Link to={`/shelf/parts/${g.piece}`} className="figures inline-flex min-h-11 items-center font-bold underline underline-offset-2">
                  {g.piece}
                </Link>
                <span className="text-quiet">{g.reason}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {s.waits.length > 0 && onOrder && (
        <Button className="mt-2" onClick={onOrder}>
          Order one
        </Button>
      )}
      {s.waits.length > 0 && (
        <ul className="mt-1 divide-y divide-line border-t border-line">
          {s.waits.map((w) => (
            <li key={w.job} className="flex flex-wrap items-center gap-x-3 py-1.5">
              <Link to={`/bench/${w.job}`} className="figures inline-flex min-h-11 items-center font-bold underline underline-offset-2">
                {w.job}
              </Link>
              <Chip tone="brass">waits</Chip>
              <span className="text-quiet">
                promised {promise(w.promised_on, new Date())}; {next}
              </span>
            </li>
          ))}
        </ul>
      )}
    </Panel>
  )
}

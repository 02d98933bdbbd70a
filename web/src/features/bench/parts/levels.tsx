import { useState } from 'react'
import type { LevelRow } from '@/api/types'
import { money } from '@/lib/money'
import { cures, minutes } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Chip } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { useWorkbench } from './parts-that-fit'
import { SwapPlanDialog } from './swap-plan'

/** The levels of repair side by side, smallest first: what each asks, what it gives, how long it will last. */
export function Levels() {
  const { job, send, isBusy, mayWork } = useBench()
  const bench = useWorkbench(job.tag, job.version)
  const [planned, setPlanned] = useState<string | null>(null)
  const mayPropose = mayWork && ['isolate', 'agree'].includes(job.stage)
  return (
    <Asked of={bench} what="the levels">
      {(found) => (
        <>
          {found.levels.length === 0 && <p className="text-quiet">No level of repair helps more than one time in ten yet: find out more first.</p>}
          <ul className="grid gap-3 sm:grid-cols-2">
            {found.levels.map((r) => (
              <LevelCard key={r.rank} isProposed={r.repair === job.agree.proposal?.repair} row={r} onPlan={r.level ? () => setPlanned(r.level) : undefined} onPropose={mayPropose ? () => send({ do: 'propose', repair: r.repair }, `Propose: ${r.name}`) : undefined} isBusy={isBusy} />
            ))}
          </ul>
          <div className="mt-3 flex flex-wrap items-center gap-2">
            <label className="flex flex-wrap items-center gap-2">
              <span>Plan a swap of</span>
              <select className="min-h-11 rounded-lg border border-ink/55 bg-paper px-3" value="" onChange={(e) => e.target.value && setPlanned(e.target.value)}>
                <option value="">choose…</option>
                {found.pieces.map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.name}
                  </option>
                ))}
              </select>
            </label>
          </div>
          {planned && <SwapPlanDialog level={planned} onClose={() => setPlanned(null)} />}
        </>
      )}
    </Asked>
  )
}

/** What the shop promises for a repair, where one is offered. */
function Promised({ repair }: { repair: string }) {
  const offer = useBench().job.agree.offers.find((o) => o.repair === repair)
  if (!offer) return null
  return (
    <>
      <dt className="text-quiet">Guarantee</dt>
      <dd>
        {offer.guarantee_days} days{offer.alters_unit && ', a stopgap'}
      </dd>
    </>
  )
}

function LevelCard({ row: r, onPlan, onPropose, isBusy, isProposed }: { row: LevelRow; onPlan?: (() => void) | undefined; onPropose?: (() => void) | undefined; isBusy: boolean; isProposed: boolean }) {
  return (
    <li className="flex flex-col rounded-xl border border-line p-3">
      <p className="text-tiny text-quiet">{r.rank_name}</p>
      <h3 className="leading-snug font-bold">{r.name}</h3>
      <p className="mt-1 flex items-baseline gap-3">
        <span className="figures text-[1.35rem] font-bold">{money(r.total_cents)}</span>
        <span>{cures(r.p_success, r.p_lasts_year)}</span>
      </p>
      <dl className="mt-1 grid grid-cols-[5.2rem_minmax(0,1fr)] gap-x-2 gap-y-0.5">
        <dt className="text-quiet">Bench</dt>
        <dd>{minutes(r.minutes)} in and out</dd>
        <dt className="text-quiet">Part</dt>
        <dd>
          {r.part_cents ? money(r.part_cents) : 'none'}
          {r.item && <span className="figures"> {r.item}</span>}
        </dd>
        <dt className="text-quiet">Wait</dt>
        <dd>{r.wait_days > 0.5 ? `about ${Math.round(r.wait_days)} days` : 'none'}</dd>
        <dt className="text-quiet">Skill</dt>
        <dd>{r.skill}</dd>
        <dt className="text-quiet">Lasts</dt>
        <dd>
          about {Math.round(r.lasts_months)} months: {r.why}
        </dd>
        <Promised repair={r.repair} />
      </dl>
      <p className="mt-auto flex flex-wrap gap-1.5 pt-2">
        {onPlan && <Button onClick={onPlan}>Show the plan</Button>}
        {isProposed && <Chip tone="clear">is proposed</Chip>}
        {onPropose && !isProposed && (
          <Button onClick={onPropose} disabled={isBusy}>
            Propose this
          </Button>
        )}
      </p>
    </li>
  )
}

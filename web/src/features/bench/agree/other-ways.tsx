import { useState } from 'react'
import type { Quote } from '@/api/types'
import { money } from '@/lib/money'
import { curesBriefly, minutes } from '@/lib/words'
import { Button } from '@/ui/button'
import { Panel } from '@/ui/panel'
import { Term } from '@/ui/term'
import { useBench } from '../frame/bench-context'
import { Levels } from '../parts/levels'
import { useWorkbench } from '../parts/parts-that-fit'
import { EndDialog } from './end-dialog'

/** Every other way once: the best of each level side by side, then what else would help, then how it may end without a repair. */
export function OtherWays() {
  const { job, send, isBusy, mayWork } = useBench()
  const [isEnding, setEnding] = useState(false)
  const bench = useWorkbench(job.tag, job.version)
  const shown = new Set([job.agree.proposal?.repair, ...(bench.data?.levels ?? []).map((r) => r.repair)])
  const others = bench.isPending ? [] : job.agree.offers.filter((o) => !shown.has(o.repair))
  return (
    <Panel title="Other ways" aside={<Term word="level" says="by level of repair" />}>
      <Levels />
      {others.length > 0 && <h3 className="mt-4 font-bold">At the same levels, less good</h3>}
      <ul className="divide-y divide-line">
        {others.map((o) => (
          <li key={o.repair} className="grid items-center gap-x-4 gap-y-2 py-2 sm:grid-cols-[minmax(0,1fr)_auto]">
            <span className="min-w-0">
              <b>{o.name}</b>
              <span className="block text-tiny text-quiet">{said(o)}</span>
            </span>
            <span className="flex items-center gap-3">
              <span className="figures text-[1.1rem] font-bold">{money(o.total_cents)}</span>
              {mayWork && (
                <Button disabled={isBusy} onClick={() => send({ do: 'propose', repair: o.repair }, `Propose: ${o.name}`)}>
                  Propose this
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {mayWork && <ByChoice />}
      {mayWork && (
        <Button kind="quiet" disabled={isBusy} onClick={() => setEnding(true)}>
          End it without a repair
        </Button>
      )}
      {isEnding && <EndDialog onClose={() => setEnding(false)} />}
    </Panel>
  )
}

/** What nobody advises: it takes away from what keeps people safe, and is refused where nothing would be left. */
function ByChoice() {
  const { job, send, isBusy } = useBench()
  const mine = job.repairs.filter((r) => r.alters && r.id !== job.agree.proposal?.repair)
  if (mine.length === 0) return null
  return (
    <details className="mt-1">
      <summary className="min-h-11 cursor-pointer content-center text-quiet underline underline-offset-2">Nobody advises these: a bridged lid switch</summary>
      <ul className="divide-y divide-line">
        {mine.map((r) => (
          <li key={r.id} className="grid items-center gap-x-4 gap-y-2 py-2 sm:grid-cols-[minmax(0,1fr)_auto]">
            <span>
              <b>{r.name}</b>
              <span className="block max-w-[70ch] text-danger">{r.alters}</span>
            </span>
            <Button disabled={isBusy} onClick={() => send({ do: 'propose', repair: r.id }, `Propose: ${r.name}`)}>
              Propose it all the same
            </Button>
          </li>
        ))}
      </ul>
    </details>
  )
}

const said = (o: Quote): string =>
  `${minutes(o.labour_min)} in and out ${money(o.labour_cents)}, part ${money(o.part_cents)}, ${o.wait_days > 0 ? `wait ${Math.round(o.wait_days)} days, ` : ''}${curesBriefly(o.p_success, o.p_lasts_year)}, ${o.guarantee_days} days guarantee${o.alters_unit ? ', a stopgap' : ''}`

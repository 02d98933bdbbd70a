import { useState } from 'react'
import type { Swaps } from '@/api/types'
import { money } from '@/lib/money'
import { FUNCTION_WORDS, HEALTH_WORDS, minutes, percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { useBench } from '../frame/bench-context'
import { FitDialog } from '../parts/fit-dialog'
import { Places } from '../parts/on-trial'
import { PutBack } from '../parts/put-back'

/** What a donor's part tells for its minutes, and what has to go back. */
const worth = ({ bits, minutes: all }: Swaps): string =>
  `That ${bits >= 0.5 ? 'tells much' : bits >= 0.15 ? 'tells something' : 'tells little'} (${bits.toFixed(2)} bit) in ${minutes(all)}, the own part back in included.`

const RESULTS: Record<string, string> = { no_change: 'no change', worse: 'worse', changed: 'part of it changed', clean: 'works' }
/** What was fitted at each trial, what has to go back, which parts are at hand, and what to try next. */
export function SwapTable({ swaps, onTrial, onPart }: { swaps: Swaps; onTrial: (repair: string) => void; onPart: () => void }) {
  const { mayWork, isBusy } = useBench()
  const [isFitting, setFitting] = useState(false)
  return (
    <div className="space-y-4">
      <Places onFit={() => setFitting(true)} />
      {isFitting && <FitDialog onClose={() => setFitting(false)} />}
      {swaps.rows.length === 0 && swaps.items.length === 0 && <p className="text-quiet">Nothing has been swapped yet. A swap is evidence, and only as good as the part that went in.</p>}
      {swaps.rows.length > 0 && <Tried rows={swaps.rows} />}
      {swaps.items.length > 0 && <Items items={swaps.items} />}
      {swaps.next_repair && (
        <p className="flex flex-wrap items-center gap-3">
          <span>
            <b>Try next:</b> <span className="figures">{swaps.next_item || 'the donor’s part'}</span>, {swaps.next_repair.toLowerCase()}. It would work in {percent(swaps.p_cures)}. {worth(swaps)}
          </span>
        </p>
      )}
      <div>
        <h3 className="mb-1 font-bold">Parts for this job</h3>
        {swaps.parts.length === 0 && <p className="text-quiet">None taken or noted. What the shelf holds is reckoned with anyway: see Parts that fit.</p>}
        <ul className="divide-y divide-line">
          {swaps.parts.map((p) => (
            <PartRow key={p.line} part={p} onTrial={onTrial} />
          ))}
        </ul>
        {mayWork && (
          <Button onClick={onPart} disabled={isBusy} className="mt-2">
            Note a part that is not on the shelf
          </Button>
        )}
      </div>
    </div>
  )
}

function Tried({ rows }: Pick<Swaps, 'rows'>) {
  return (
    <table className="w-full text-left">
      <thead className="text-tiny text-quiet">
        <tr>
          <th className="py-1 font-normal">Swapped</th>
          <th className="font-normal">What went in</th>
          <th className="font-normal">Itself bad</th>
          <th className="font-normal">Trial showed</th>
          <th className="font-normal">Now</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={`${r.line}-${r.repair}-${r.item}`} className="border-t border-line align-top">
            <th scope="row" className="py-1.5 pr-2 font-semibold">
              {r.part}
            </th>
            <td className="pr-2">
              <span className="figures">{r.item || 'no tag'}</span>, {HEALTH_WORDS[r.health]}
            </td>
            <td className="figures pr-2">{percent(r.p_bad)}</td>
            <td className="pr-2">{RESULTS[r.result]}</td>
            <td>{r.goes_back ? <b className="text-brass">the original goes back in</b> : r.stays ? 'stays in' : 'in'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** What is known of each item by now, function by function. */
function Items({ items }: Pick<Swaps, 'items'>) {
  return (
    <div>
      <h3 className="mb-1 font-bold">What is known of each item now</h3>
      <ul className="divide-y divide-line">
        {items.map((i) => (
          <li key={i.item} className="flex flex-wrap items-baseline gap-x-4 py-1.5">
            <span className="figures font-semibold">{i.item}</span>
            {i.functions.map((f) => (
              <span key={f.function}>
                {FUNCTION_WORDS[f.function as keyof typeof FUNCTION_WORDS]}: <b>{verdict(f.p_bad)}</b> <span className="text-quiet">(bad in {percent(f.p_bad)}, before {percent(f.before)})</span>
              </span>
            ))}
          </li>
        ))}
      </ul>
    </div>
  )
}

const verdict = (bad: number): string => (bad < 0.05 ? 'good' : bad > 0.8 ? 'bad' : bad > 0.5 ? 'suspect' : 'not clear')

function PartRow({ part: p, onTrial }: { part: Swaps['parts'][number]; onTrial: (repair: string) => void }) {
  const { mayWork, send, isBusy } = useBench()
  return (
    <li className="flex flex-wrap items-center justify-between gap-2 py-1">
      <span>
        <span className="figures font-semibold">{p.item || 'no tag'}</span>, for {p.name.toLowerCase()}: {p.is_taken ? 'taken from the shelf' : p.is_donor ? 'at a donor' : p.wait_days > 0 ? `here in ${p.wait_days} days` : 'here'},{' '}
        {HEALTH_WORDS[p.health]}
        {p.works.length > 0 && `, works: ${p.works.join(', ')}`}
        {p.fails.length > 0 && `, fails: ${p.fails.join(', ')}`}
        {p.price_cents > 0 && `, ${money(p.price_cents)}`}
      </span>
      {mayWork && (
        <span className="flex gap-1.5">
          <Button onClick={() => onTrial(p.repair)} disabled={isBusy}>
            Log its trial
          </Button>
          {p.is_taken ? (
            <PutBack part={p} />
          ) : (
            <Button kind="quiet" disabled={isBusy} onClick={() => send({ do: 'strike', line: p.line, why: 'not at hand any more' }, `Take ${p.item || 'the part'} off the list`)}>
              Take off
            </Button>
          )}
        </span>
      )}
    </li>
  )
}

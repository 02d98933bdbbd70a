import { useState } from 'react'
import { money } from '@/lib/money'
import { Button } from '@/ui/button'
import { Panel } from '@/ui/panel'
import type { Care, Try } from './practice-queries'

/** Every repair, by its part; it is done with what care somebody takes, and then tried. */
export function Repairs({ repairs, isBusy, onRepair }: { repairs: readonly Try[]; isBusy: boolean; onRepair: (id: string, care: Care[], isDonor: boolean) => void }) {
  const [picked, setPicked] = useState('')
  const parts = [...new Set(repairs.map((r) => r.part))]
  return (
    <Panel>
      <ul>
        {parts.map((p) => (
          <li key={p} className="grid border-t border-line py-1 first:border-0 md:grid-cols-[11rem_minmax(0,1fr)]">
            <span className="py-2 font-semibold">{p}</span>
            <ul>
              {repairs
                .filter((r) => r.part === p)
                .map((r) => (
                  <li key={r.id}>
                    <button type="button" aria-expanded={picked === r.id} onClick={() => setPicked(picked === r.id ? '' : r.id)} className="flex min-h-11 w-full items-baseline justify-between gap-3 px-1 py-1.5 text-left hover:bg-mat">
                      <span>
                        {r.name}
                        {r.tried > 0 && <span className="text-quiet"> · {r.tried === 1 ? 'tried' : `tried ${r.tried} times`}</span>}
                      </span>
                      <span className="figures shrink-0 text-quiet">{priceOf(r)}</span>
                    </button>
                    {picked === r.id && <Doing key={r.id} repair={r} isBusy={isBusy} onDo={(care, isDonor) => onRepair(r.id, care, isDonor)} />}
                  </li>
                ))}
            </ul>
          </li>
        ))}
      </ul>
    </Panel>
  )
}

const priceOf = (r: Try): string => [`${r.minutes.toFixed(0)} min`, r.part_cents > 0 ? money(r.part_cents) : '', r.wait_days > 0 ? `${r.wait_days} days` : ''].filter(Boolean).join(' · ')

function Doing({ repair, isBusy, onDo }: { repair: Try; isBusy: boolean; onDo: (care: Care[], isDonor: boolean) => void }) {
  const [care, setCare] = useState<Care[]>([])
  const choices: { id: Care; says: string; isAsked: boolean }[] = [
    { id: 'dry', says: 'Let it dry before power (5 min)', isAsked: true },
    { id: 'look_over', says: 'Look over every flex before it is shut (1 min)', isAsked: true },
    { id: 'own_board', says: 'Move the console’s own board across', isAsked: repair.brings_board },
  ]
  return (
    <div className="rounded-lg border border-ink bg-mat/60 p-3">
      <ol aria-label="How it is done" className="mb-2 list-decimal space-y-1 pl-6">
        {repair.steps.map((s) => (
          <li key={s.text}>
            {s.text}
            {s.cautions.map((c) => (
              <span key={c} className="block text-tiny text-danger">
                {c}
              </span>
            ))}
          </li>
        ))}
      </ol>
      <p className="mb-2 text-quiet">What goes wrong: {repair.goes_wrong}</p>
      <fieldset>
        <legend className="font-semibold">With what care?</legend>
        {choices
          .filter((c) => c.isAsked)
          .map((c) => (
            <label key={c.id} className="flex min-h-11 items-center gap-2.5">
              <input type="checkbox" className="size-6" checked={care.includes(c.id)} onChange={(e) => setCare(e.target.checked ? [...care, c.id] : care.filter((x) => x !== c.id))} />
              {c.says}
            </label>
          ))}
      </fieldset>
      <div className="flex flex-wrap items-center gap-2">
        <Button kind="act" disabled={isBusy} onClick={() => onDo(care, false)}>
          Do it, and try
        </Button>
        {repair.donor_cents !== null && (
          <Button disabled={isBusy} onClick={() => onDo(care, true)}>
            Try a donor’s part, here now ({money(repair.donor_cents)} if it stays)
          </Button>
        )}
      </div>
    </div>
  )
}

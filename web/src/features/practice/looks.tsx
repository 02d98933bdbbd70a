import { useState } from 'react'
import { TextField } from '@/ui/field'
import { Panel } from '@/ui/panel'
import type { Look } from './practice-queries'

/** Everything that can be looked at, by what it takes; the world answers what is pressed. */
export function Looks({ looks, isBusy, onLook }: { looks: readonly Look[]; isBusy: boolean; onLook: (id: string) => void }) {
  const [typed, setTyped] = useState('')
  const shown = looks.filter((l) => l.ask.toLowerCase().includes(typed.trim().toLowerCase()))
  const groups = [...new Set(looks.map((l) => l.group))]
  return (
    <div className="space-y-3">
      <div className="max-w-90">
        <TextField label="Find a look" value={typed} onChange={(e) => setTyped(e.target.value)} />
      </div>
      {shown.length === 0 && <p className="text-quiet">No look has these words.</p>}
      {groups.map((g) => {
        const own = shown.filter((l) => l.group === g)
        if (own.length === 0) return null
        return (
          <Panel key={g} title={g[0]?.toUpperCase() + g.slice(1)} level={3}>
            <ul className="grid gap-x-6 xl:grid-cols-2">
              {own.map((l) => (
                <li key={l.id} className="border-t border-line">
                  <button type="button" disabled={isBusy} title={l.how} onClick={() => onLook(l.id)} className="flex min-h-12 w-full items-baseline justify-between gap-3 px-1 py-2 text-left hover:bg-mat disabled:opacity-55">
                    <span>
                      {l.ask}
                      {l.answer && <b className="block">{l.answer}</b>}
                      {l.cautions.length > 0 && <span className="block text-tiny text-danger">{l.cautions.join(' · ')}</span>}
                    </span>
                    <span className="figures shrink-0 text-quiet">{l.minutes < 0.5 ? 'no time' : `${l.minutes.toFixed(0)} min`}</span>
                  </button>
                </li>
              ))}
            </ul>
          </Panel>
        )
      })}
    </div>
  )
}

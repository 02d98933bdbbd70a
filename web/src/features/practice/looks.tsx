import { useState } from 'react'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Panel } from '@/ui/panel'
import type { Look } from './practice-queries'

/** Everything that can be looked at, by what it takes; the world answers what is pressed. */
export function Looks({ looks, isBusy, onLook }: { looks: readonly Look[]; isBusy: boolean; onLook: (id: string, mains?: 'out' | 'live') => void }) {
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
                  {l.tips ? <Measured look={l} tips={l.tips} isBusy={isBusy} onLook={(mains) => onLook(l.id, mains)} /> : <Looked look={l} isBusy={isBusy} onLook={() => onLook(l.id)} />}
                </li>
              ))}
            </ul>
          </Panel>
        )
      })}
    </div>
  )
}

const minutesOf = (look: Look): string => (look.minutes < 0.5 ? 'no time' : `${look.minutes.toFixed(0)} min`)

function Asked({ look }: { look: Look }) {
  return (
    <span>
      {look.ask}
      {look.answer && <b className="block">{look.answer}</b>}
      {look.cautions.length > 0 && <span className="block text-tiny text-danger">{look.cautions.join(' · ')}</span>}
    </span>
  )
}

function Looked({ look, isBusy, onLook }: { look: Look; isBusy: boolean; onLook: () => void }) {
  return (
    <button type="button" disabled={isBusy} title={look.how} onClick={onLook} className="flex min-h-12 w-full items-baseline justify-between gap-3 px-1 py-2 text-left hover:bg-mat disabled:opacity-55">
      <Asked look={look} />
      <span className="figures shrink-0 text-quiet">{minutesOf(look)}</span>
    </button>
  )
}

/** A look with the meter: in which state it is read is the learner's to choose, and what the number means is the learner's to say. */
function Measured({ look, tips, isBusy, onLook }: { look: Look; tips: NonNullable<Look['tips']>; isBusy: boolean; onLook: (mains: 'out' | 'live') => void }) {
  return (
    <div className="px-1 py-2">
      <div className="flex items-baseline justify-between gap-3" title={look.how}>
        <Asked look={look} />
        <span className="figures shrink-0 text-quiet">{minutesOf(look)}</span>
      </div>
      <p className="text-quiet">
        {tips.points}: {tips.limit}
      </p>
      <div role="group" aria-label={`Measure ${tips.points}, ${tips.limit}`} className="mt-1 flex flex-wrap items-center gap-2">
        <span className="text-quiet">Mains</span>
        <Button disabled={isBusy} onClick={() => onLook('out')}>
          out
        </Button>
        <Button disabled={isBusy} onClick={() => onLook('live')}>
          running
        </Button>
      </div>
    </div>
  )
}

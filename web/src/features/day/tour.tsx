import { Link } from 'react-router'
import type { DayRow } from '@/api/types'
import { useKept } from '@/lib/kept'
import { Button } from '@/ui/button'
import { Panel } from '@/ui/panel'

interface Stop {
  id: string
  stage: DayRow['stage']
  says: string
}

const STOPS: readonly Stop[] = [
  { id: 'next', stage: 'isolate', says: 'What to do now stands first, its answers at the foot of the screen: press a number key. W says why, U takes the last one back.' },
  { id: 'seen', stage: 'fault_seen', says: 'How far does it get, and which discs does it read? One question after the other, by number keys; 0 is “can’t tell”.' },
  { id: 'agree', stage: 'agree', says: 'What it would cost and how likely it helps; what the owner said is written down here.' },
  { id: 'repair', stage: 'repair', says: 'Step by step, the caution at its step. Enter marks a step done, and is refused while the mains is in the wrong state.' },
  { id: 'prove', stage: 'prove', says: 'The same tries again, and as many clean passes as the odds ask for.' },
]

/** A first look round on the units that are in the house. It can be left and taken up again: what was seen is ticked in this browser. */
export function Tour({ rows }: { rows: readonly DayRow[] }) {
  const [seen, setSeen] = useKept<string[]>('tour', [])
  const [isOpen, setOpen] = useKept<'yes' | 'no'>('tour-open', 'no')
  const stops = STOPS.flatMap((s) => rows.filter((r) => r.stage === s.stage).slice(0, 1).map((row) => ({ ...s, row })))
  if (stops.length === 0) return null
  const left = stops.filter((s) => !seen.includes(s.id)).length
  if (isOpen === 'no')
    return (
      <Button onClick={() => setOpen('yes')}>
        New here? A look round in {stops.length} stops{left < stops.length && left > 0 ? `, ${left} left` : ''}
      </Button>
    )
  return (
    <Panel title={`A look round in ${stops.length} stops`} aside={<Button onClick={() => setOpen('no')}>{left === 0 ? 'Done: put it away' : 'Not now'}</Button>}>
      <ol className="divide-y divide-line">
        {stops.map((s) => (
          <li key={s.id} className="flex flex-wrap items-center gap-x-3 py-1">
            <Link to={`/bench/${s.row.tag}`} className="inline-flex min-h-11 min-w-44 items-center gap-2 font-semibold underline underline-offset-3" onClick={() => setSeen([...new Set([...seen, s.id])])}>
              <span className="figures">{s.row.tag}</span> {s.row.stage_name}
            </Link>
            <span className="min-w-0 flex-1 basis-80 text-quiet">{s.says}</span>
            <span className="w-12 text-verdigris">{seen.includes(s.id) && '✓ seen'}</span>
          </li>
        ))}
      </ol>
    </Panel>
  )
}

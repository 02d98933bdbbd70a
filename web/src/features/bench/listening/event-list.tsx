import { Button } from '@/ui/button'
import { Select } from '@/ui/field'
import type { SoundEvent, Sounds } from './sound-queries'

interface Props {
  events: readonly SoundEvent[]
  lanes: Sounds['lanes']
  picked: number
  onPlay: (event: number) => void
  onRetell?: ((events: readonly SoundEvent[], says: string) => void) | undefined
}

/** What is heard, in words; the one that is picked can be called something else, or dropped. */
export function EventList({ events, lanes, picked, onPlay, onRetell }: Props) {
  if (events.length === 0) return <p>Nothing that can be told.</p>
  const kinds = lanes.flatMap((l) => l.kinds.map((k) => ({ id: k.id, label: `${k.name} (${l.name.toLowerCase()})` })))
  return (
    <ol className="divide-y divide-line" aria-label="What is heard">
      {events.map((e, n) => (
        <li key={`${e.kind} ${e.start_s}`}>
          <button type="button" onClick={() => onPlay(n)} aria-expanded={n === picked} className={`flex min-h-11 w-full flex-wrap items-baseline gap-x-3 px-2 py-1.5 text-left hover:bg-mat ${n === picked ? 'bg-mat' : ''}`}>
            <span className="figures min-w-28 text-quiet">
              {e.start_s.toFixed(1)} to {e.end_s.toFixed(1)} s
            </span>
            <b>{e.name}</b>
            {e.says && <span>{e.says}</span>}
            <span className="ml-auto text-tiny text-quiet">{e.sureness}</span>
          </button>
          {n === picked && onRetell && (
            <div className="flex flex-wrap items-end gap-2 bg-mat px-2 pb-2">
              <div className="min-w-56 flex-1">
                <Select label="It is" choices={kinds} value={e.kind} onChange={(kind) => kind && kind !== e.kind && onRetell(events.map((x, k) => (k === n ? { ...x, kind } : x)), 'A sound put right')} />
              </div>
              <Button onClick={() => onRetell(events.filter((_, k) => k !== n), 'A sound dropped')}>It is nothing: drop it</Button>
            </div>
          )}
        </li>
      ))}
    </ol>
  )
}

import type { Sound, SoundEvent, Sounds } from './sound-queries'
import { pictureAt } from './sound-queries'

interface Props {
  sound: Sound
  events: readonly SoundEvent[]
  lanes: Sounds['lanes']
  /** The event that is looked at, by its place; -1 for none. */
  picked: number
  /** Where it plays now, in seconds. */
  now: number
  onPick: (event: number) => void
}

/** The recording as a picture: high pitches at the top, dark where it is loud, and under it what was heard, lane by lane. The list beside it says the same. */
export function SoundPicture({ sound, events, lanes, picked, now, onPick }: Props) {
  const end = sound.length_s
  const at = (s: number) => `${(100 * Math.min(Math.max(s, 0), end)) / end}%`
  const ticks = Array.from({ length: Math.floor(end / 5) + 1 }, (_, n) => 5 * n)
  return (
    <div className="grid grid-cols-[6.5rem_minmax(0,1fr)] text-tiny" aria-hidden="true">
      <div className="pr-2 text-right text-quiet">
        <p className="pt-0.5">high</p>
        <p className="pt-16">low</p>
      </div>
      <div className="relative h-28 overflow-hidden rounded-t border border-line bg-paper">
        {sound.is_here && (
          <img
            src={pictureAt(sound.hash)}
            alt=""
            className="absolute inset-y-0 h-full"
            style={{ left: at(sound.picture_from_s), width: `${(100 * (sound.picture_to_s - sound.picture_from_s)) / end}%`, imageRendering: 'pixelated' }}
          />
        )}
        <Playhead left={at(now)} />
      </div>
      {lanes.map((lane) => (
        <Lane key={lane.id} name={lane.name}>
          {events.map(
            (e, n) =>
              e.lane === lane.id && (
                <button
                  key={n}
                  type="button"
                  tabIndex={-1}
                  title={e.name}
                  onClick={() => onPick(n)}
                  className={`absolute inset-y-1 min-w-2 rounded-sm border ${n === picked ? 'z-10 border-ink bg-ember' : 'border-ink/70 bg-ink/65'}`}
                  style={{ left: at(e.start_s), width: `calc(${at(e.end_s)} - ${at(e.start_s)})` }}
                />
              ),
          )}
          <Playhead left={at(now)} />
        </Lane>
      ))}
      <span />
      <div className="figures relative h-5 text-quiet">
        {ticks.map((s) => (
          <span key={s} className={`absolute ${s === 0 ? '' : '-translate-x-1/2'}`} style={{ left: at(s) }}>
            {s} s
          </span>
        ))}
      </div>
    </div>
  )
}

function Lane({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <span className="self-center pr-2 text-right">{name}</span>
      <div className="relative h-8 border-x border-b border-line bg-mat/50">{children}</div>
    </>
  )
}

const Playhead = ({ left }: { left: string }) => <span className="pointer-events-none absolute inset-y-0 z-20 w-0.5 bg-ember" style={{ left }} />

import type { MatGroup, MatPlace } from './mat-queries'

const LETTERS = 'ABCDEFGHJKLMNP'
const WIDTH = 300
const HEIGHT = 200
const EDGE = 14

/** The letter by which a group of screws is known on the picture and beside it. */
export const letterOf = (n: number): string => LETTERS[n % LETTERS.length]!

const STATES: Record<MatPlace['state'], string> = { in: 'in', out: 'on the mat', missing: 'missing', replaced: 'another in it', explained: 'stays empty' }
export const stateName = (state: MatPlace['state']): string => STATES[state]

/** Where a place is drawn: as measured, or in a row along the edge where nobody has. */
const spot = (place: MatPlace, n: number, of: number): [number, number] => {
  const [x, y] = place.at ?? [(100 * (n + 1)) / (of + 1), 97]
  return [EDGE + (x / 100) * (WIDTH - 2 * EDGE), EDGE + (y / 100) * (HEIGHT - 2 * EDGE)]
}

/** The unit from above with each screw's place: whole where its screw is in, a ring where it lies on the mat, hatched where none was. The same stands in words beside it. */
export function MatPicture({ groups, now, says, whose }: { groups: readonly MatGroup[]; now: readonly string[]; says: string; whose: string }) {
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT + 20}`} role="img" aria-label={`${whose} from above. ${says}`} className="w-full rounded-lg border border-line bg-mat/50">
      <rect x={EDGE / 2} y={EDGE / 2} width={WIDTH - EDGE} height={HEIGHT - EDGE} rx={10} className="fill-paper stroke-ink" strokeWidth={1.5} />
      <path d={`M ${WIDTH / 2 - 40} ${HEIGHT - EDGE / 2} h 80`} className="stroke-ink" strokeWidth={5} />
      <text x={WIDTH / 2} y={HEIGHT + 13} textAnchor="middle" fontSize={14} className="fill-quiet">
        front
      </text>
      {groups.map((g, n) =>
        g.places.map((p, k) => {
          const [x, y] = spot(p, k, g.places.length)
          return <Place key={p.id} x={x} y={y} letter={letterOf(n)} state={p.state} isNow={now.includes(g.id)} />
        }),
      )}
    </svg>
  )
}

function Place({ x, y, letter, state, isNow }: { x: number; y: number; letter: string; state: MatPlace['state']; isNow: boolean }) {
  const isIn = state === 'in' || state === 'replaced'
  const ring = state === 'missing' || state === 'explained' ? '2.5 2.5' : undefined
  return (
    <g transform={`translate(${x} ${y})`}>
      {isNow && <circle r={14} className="fill-none stroke-ember" strokeWidth={2.5} />}
      <circle r={10} className={isIn ? 'fill-ink stroke-ink' : 'fill-paper stroke-ink'} strokeWidth={1.8} strokeDasharray={ring} />
      {state === 'replaced' && <circle r={7.5} className="fill-none stroke-paper" strokeWidth={1.2} />}
      <text textAnchor="middle" y={5} fontSize={14} fontWeight={700} className={isIn ? 'fill-paper' : 'fill-ink'}>
        {letter}
      </text>
    </g>
  )
}

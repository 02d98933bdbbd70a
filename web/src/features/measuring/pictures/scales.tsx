import { Drawing, short } from './drawing'

export interface BandPicture {
  value: number | null
  u: number
  low: number | null
  high: number | null
  unit: string
  values: (number | null)[]
}

const W = 560
const EDGE = 40

/** A reading on its scale: the limit as a band, the value with its doubt, and each repeat as a tick. */
export function Band({ of }: { of: BandPicture }) {
  const { value, u, low, high } = of
  if (value === null) return <Drawing says="Open: off the scale" width={W} height={70}><text x={W / 2} y={42} textAnchor="middle" fontSize="20" fontWeight="bold">open</text></Drawing>
  const ends = [low, high, value - 3 * u, value + 3 * u].filter((x): x is number => x !== null)
  const wide = Math.max(...ends) - Math.min(...ends) || Math.abs(value) || 1
  const from = Math.min(...ends) - 0.15 * wide
  const to = Math.max(...ends) + 0.15 * wide
  const x = (v: number) => EDGE + ((v - from) / (to - from)) * (W - 2 * EDGE)
  const left = low === null ? x(from) : x(low)
  const right = high === null ? x(to) : x(high)
  const says = `Reads ${short(value)}${low !== null || high !== null ? `; the limit is ${low === null ? 'up' : short(low)} to ${high === null ? 'any' : short(high)}` : ''}`
  return (
    <Drawing says={says} width={W} height={130}>
      {(low !== null || high !== null) && <rect x={left} y={48} width={right - left} height={36} fill="var(--verdigris-soft)" stroke="var(--verdigris)" />}
      <line x1={EDGE} x2={W - EDGE} y1={84} y2={84} stroke="var(--ink)" />
      {low !== null && <text x={left} y={106} textAnchor="middle">{short(low)}</text>}
      {high !== null && <text x={right} y={106} textAnchor="middle">{short(high)}</text>}
      {of.values.map((v, n) => v !== null && <line key={n} x1={x(v)} x2={x(v)} y1={78} y2={90} stroke="var(--quiet)" strokeWidth="2" />)}
      <line x1={x(value - 2 * u)} x2={x(value + 2 * u)} y1={66} y2={66} stroke="var(--ink)" strokeWidth="5" />
      <circle cx={x(value)} cy={66} r={8} fill="var(--ink)" />
      <text x={x(value)} y={36} textAnchor="middle" fontSize="18" fontWeight="bold" className="figures">{short(value)}</text>
    </Drawing>
  )
}

export interface OhmsPicture {
  ohm: number | null
  blow: number
}

/** Ohms behind a fuse, from a short to none, each ten times the one before. */
export function Ohms({ of }: { of: OhmsPicture }) {
  const { ohm, blow } = of
  const [least, most] = [Math.log10(blow / 100), Math.log10(blow * 1000)]
  const x = (r: number) => EDGE + ((Math.min(Math.max(Math.log10(Math.max(r, 1e-6)), least), most) - least) / (most - least)) * (W - 2 * EDGE)
  const zones = [
    { from: blow / 100, to: 2 * blow, fill: 'var(--danger-soft)', name: 'short: no power' },
    { from: 2 * blow, to: 5 * blow, fill: 'var(--brass-soft)', name: '' },
    { from: 5 * blow, to: blow * 1000, fill: 'var(--verdigris-soft)', name: 'no short' },
  ]
  return (
    <Drawing says={ohm === null ? `Not read; a short is under ${short(2 * blow)} ohm` : `${short(ohm)} ohm; a short is under ${short(2 * blow)} ohm, doubtful to ${short(5 * blow)}`} width={W} height={116}>
      {zones.map((z) => (
        <g key={z.from}>
          <rect x={x(z.from)} y={42} width={x(z.to) - x(z.from)} height={30} fill={z.fill} stroke="var(--ink)" strokeOpacity="0.4" />
          <text x={(x(z.from) + x(z.to)) / 2} y={62} textAnchor="middle">{z.name}</text>
        </g>
      ))}
      <text x={x(2 * blow) - 4} y={96} textAnchor="end">{short(2 * blow)} Ω</text>
      <text x={x(5 * blow) + 4} y={96}>{short(5 * blow)} Ω</text>
      {ohm !== null && (
        <>
          <path d={`M${x(ohm)} 42l-9 -14h18z`} fill="var(--ink)" />
          <text x={x(ohm)} y={22} textAnchor="middle" fontSize="18" fontWeight="bold" className="figures">{ohm >= 1e9 ? 'open' : `${short(ohm)} Ω`}</text>
        </>
      )}
    </Drawing>
  )
}

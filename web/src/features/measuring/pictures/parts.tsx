import { Drawing, short } from './drawing'

export interface PadsPicture {
  gap: number | null
  span: number | null
  pad: number | null
  body: number | null
  width: number | null
}

/** The two pads from above, and the fuse's body on them, to scale. */
export function Pads({ of }: { of: PadsPicture }) {
  if (of.gap === null || of.span === null) return null
  const k = 380 / Math.max(of.span, of.body ?? 0)
  const high = k * (of.pad ?? of.span / 2)
  const [cx, cy, edge] = [280, 90, (k * (of.span - of.gap)) / 2]
  const tall = Math.min(k * (of.width ?? of.pad ?? of.span / 2), 150)
  return (
    <Drawing says={`Pads ${short(of.span)} mm end to end, gap ${short(of.gap)} mm${of.body === null ? '' : `; body ${short(of.body)} mm`}`} width={560} height={200}>
      {[-1, 1].map((side) => (
        <rect key={side} x={side < 0 ? cx - (k * of.span!) / 2 : cx + (k * of.gap!) / 2} y={cy - Math.min(high, 150) / 2} width={edge} height={Math.min(high, 150)} fill="var(--brass-soft)" stroke="var(--brass)" />
      ))}
      {of.body !== null && <rect x={cx - (k * of.body) / 2} y={cy - tall / 2 + 8} width={k * of.body} height={tall - 16} rx={8} fill="var(--ink)" fillOpacity="0.28" stroke="var(--ink)" strokeWidth="2" />}
      <text x={cx} y={cy + 6} textAnchor="middle">gap {short(of.gap)} mm</text>
      <text x={cx} y={190} textAnchor="middle">{short(of.span)} mm{of.body === null ? '' : `, body ${short(of.body)} mm`}</text>
    </Drawing>
  )
}

export interface TiltPicture {
  before: number[]
  after: number[]
  tolerance: number
}
const TIMES = 20

/** How the pickup leans at each place, twenty times as much as it is: now dashed, with the shim whole, within what it may. */
export function Tilt({ of }: { of: TiltPicture }) {
  const step = 560 / of.before.length
  const beam = (cx: number, deg: number) => {
    const a = (TIMES * deg * Math.PI) / 180
    return { x1: cx - 60 * Math.cos(a), y1: 100 + 60 * Math.sin(a), x2: cx + 60 * Math.cos(a), y2: 100 - 60 * Math.sin(a) }
  }
  const worst = (xs: number[]) => Math.max(...xs.map(Math.abs)).toFixed(2)
  return (
    <Drawing says={`Leans ${worst(of.before)} degrees at worst, ${worst(of.after)} with the shim; it may ${of.tolerance.toFixed(2)}`} width={560} height={200}>
      {of.before.map((deg, n) => {
        const cx = step * (n + 0.5)
        return (
          <g key={n}>
            {[-1, 1].map((s) => <line key={s} {...beam(cx, s * of.tolerance)} stroke="var(--verdigris)" strokeWidth="2" strokeOpacity="0.6" />)}
            <line {...beam(cx, deg)} stroke="var(--ember)" strokeWidth="4" strokeDasharray="7 6" />
            <line {...beam(cx, of.after[n] ?? 0)} stroke="var(--ink)" strokeWidth="5" />
            <text x={cx} y={190} textAnchor="middle" className="figures">{deg.toFixed(2)}° → {(of.after[n] ?? 0).toFixed(2)}°</text>
          </g>
        )
      })}
      <text x={548} y={22} textAnchor="end" fill="var(--quiet)">drawn {TIMES} times as steep</text>
    </Drawing>
  )
}

export interface CapacitorsPicture {
  places: { name: string; part: string | null; polar: boolean; seen: number }[]
}

/** Each place with its part: empty ones hollow, polarity marked and how often it was seen. */
export function Capacitors({ of }: { of: CapacitorsPicture }) {
  if (of.places.length === 0) return null
  const across = Math.min(of.places.length, 5)
  const [w, h] = [560 / across, 104]
  const filled = of.places.filter((p) => p.part).length
  return (
    <Drawing says={`${filled} of ${of.places.length} places have a part`} width={560} height={h * Math.ceil(of.places.length / across)}>
      {of.places.map((p, n) => {
        const [cx, cy] = [w * ((n % across) + 0.5), h * Math.floor(n / across) + 40]
        return (
          <g key={p.name + n}>
            <circle cx={cx} cy={cy} r={27} fill={p.part ? 'var(--verdigris-soft)' : 'var(--paper)'} stroke={p.part ? 'var(--verdigris)' : 'var(--danger)'} strokeWidth="3" strokeDasharray={p.part ? undefined : '5 5'} />
            {p.polar && <path d={`M${cx + 12} ${cy - 24}A27 27 0 0 1 ${cx + 12} ${cy + 24}Z`} fill="var(--ink)" fillOpacity="0.35" />}
            <text x={cx - 4} y={cy + 6} textAnchor="middle" fontWeight="bold">{p.name.slice(0, 6)}</text>
            <text x={cx} y={cy + 48} textAnchor="middle">{p.part ? (p.polar ? `seen ${p.seen} of 2` : 'either way') : 'no part'}</text>
          </g>
        )
      })}
    </Drawing>
  )
}

export interface TrimsPicture {
  names?: string[]
  errors: number[][]
}

/** Each trim's distance from the middle of its band, round after round. */
export function Trims({ of }: { of: TrimsPicture }) {
  const { names = [], errors } = of
  if (errors.length === 0) return null
  const most = Math.max(1.5, ...errors.flat().map(Math.abs))
  const y = (e: number) => 100 - (80 * e) / most
  const x = (n: number) => 60 + (440 * n) / Math.max(errors.length - 1, 1)
  return (
    <Drawing says={names.map((n, k) => `${n} ${errors.map((e) => (e[k] ?? 0).toFixed(1)).join(', ')}`).join('; ')} width={560} height={210}>
      <rect x={50} y={y(1)} width={470} height={y(-1) - y(1)} fill="var(--verdigris-soft)" />
      {names.map((name, k) => (
        <g key={name}>
          <polyline points={errors.map((e, n) => `${x(n)},${y(e[k] ?? 0)}`).join(' ')} fill="none" stroke="var(--ink)" strokeWidth="3" strokeDasharray={['', '8 5', '3 5'][k % 3] || undefined} />
          <text x={x(errors.length - 1) + 6} y={y(errors.at(-1)?.[k] ?? 0) - 6} textAnchor={errors.length > 1 ? 'end' : 'start'}>{name}</text>
        </g>
      ))}
      <text x={8} y={y(0) + 5} className="figures">0</text>
      <text x={50} y={203}>round 0 to {errors.length - 1}, in half bands</text>
    </Drawing>
  )
}

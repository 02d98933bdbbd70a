import { Drawing, short } from './drawing'

export interface DialPicture {
  unit: string
  low: number
  high: number
  strong: number | null
  stops: { value: number; deg: number; passes: number; tries: number }[]
  turn_deg: number
}

const CX = 280
const CY = 190
const R = 140

const onArc = (share: number, r: number): [number, number] => {
  const a = Math.PI * (1 - share)
  return [CX + r * Math.cos(a), CY - r * Math.sin(a)]
}
const arc = (from: number, to: number, r: number): string => {
  const [x1, y1] = onArc(from, r)
  const [x2, y2] = onArc(to, r)
  return `M${x1} ${y1}A${r} ${r} 0 0 1 ${x2} ${y2}`
}

/** The trimmer's readings as a dial: the band, the strong limit, where it was found, each stop, and where it stands. */
export function Dial({ of }: { of: DialPicture }) {
  const all = [of.low, of.high, ...(of.strong === null ? [] : [of.strong]), ...of.stops.map((s) => s.value)]
  const wide = Math.max(...all) - Math.min(...all)
  const from = Math.min(...all) - 0.12 * wide
  const share = (v: number) => (v - from) / (1.24 * wide)
  const now = of.stops.at(-1)
  const found = of.stops[0]
  const mark = (v: number, r1: number, r2: number) => {
    const [x1, y1] = onArc(share(v), r1)
    const [x2, y2] = onArc(share(v), r2)
    return { x1, y1, x2, y2 }
  }
  const label = (v: number, r: number) => {
    const [x, y] = onArc(share(v), r)
    return { x, y, textAnchor: share(v) < 0.4 ? ('end' as const) : share(v) > 0.6 ? ('start' as const) : ('middle' as const) }
  }
  const says = [now ? `Stands at ${short(now.value)} ${of.unit}` : 'Not read yet', `band ${short(of.low)} to ${short(of.high)}`, of.strong === null ? '' : `strong limit ${short(of.strong)}`, of.turn_deg ? `turn ${Math.abs(Math.round(of.turn_deg))} degrees ${of.turn_deg > 0 ? 'clockwise' : 'anticlockwise'}` : '']
  return (
    <Drawing says={says.filter(Boolean).join('; ')} width={560} height={250}>
      <path d={arc(0, 1, R)} fill="none" stroke="var(--line)" strokeWidth="22" />
      <path d={arc(share(of.low), share(of.high), R)} fill="none" stroke="var(--verdigris)" strokeOpacity="0.55" strokeWidth="22" />
      <text {...label(of.low, R + 24)}>{short(of.low)}</text>
      <text {...label(of.high, R + 24)}>{short(of.high)}</text>
      {of.strong !== null && (
        <>
          <line {...mark(of.strong, R - 18, R + 18)} stroke="var(--danger)" strokeWidth="5" />
          <text {...label(of.strong, R + 24)} fill="var(--danger)" fontWeight="bold">{short(of.strong)} limit</text>
        </>
      )}
      {of.stops.map((s, n) => {
        const [x, y] = onArc(share(s.value), R - 30)
        return <circle key={n} cx={x} cy={y} r={n === 0 ? 7 : 4.5} fill={n === 0 ? 'var(--paper)' : 'var(--quiet)'} stroke="var(--ink)" strokeWidth="2" />
      })}
      {found && <text {...label(found.value, R - 62)} textAnchor="middle" fill="var(--quiet)">found</text>}
      {now && <line {...mark(now.value, 0, R - 12)} stroke="var(--ink)" strokeWidth="4" />}
      <circle cx={CX} cy={CY} r={9} fill="var(--ink)" />
      <text x={CX} y={CY + 42} textAnchor="middle" fontSize="22" fontWeight="bold" className="figures">{now ? `${short(now.value)} ${of.unit}` : '—'}</text>
      {Math.abs(of.turn_deg) >= 1 && (
        <text x={540} y={CY + 42} textAnchor="end" fontSize="20" fontWeight="bold">
          {of.turn_deg > 0 ? '↻' : '↺'} {Math.abs(Math.round(of.turn_deg))}°
        </text>
      )}
    </Drawing>
  )
}

export interface BeltPicture {
  motor: number
  gear: number
  centres: number
  section: number
  strain: number | null
}

/** Both pulleys and the belt around them, to scale. */
export function Belt({ of }: { of: BeltPicture }) {
  const [r1, r2] = [of.motor / 2, of.gear / 2]
  const width = of.centres + r1 + r2 + 2 * of.section
  const k = Math.min(400 / width, 130 / Math.max(2 * Math.max(r1, r2), 1))
  const [x1, y] = [80 + k * r1, 100]
  const x2 = x1 + k * of.centres
  const [a, b] = [k * (r1 + of.section / 2), k * (r2 + of.section / 2)]
  const lean = Math.asin(Math.max(-1, Math.min(1, (b - a) / (k * of.centres))))
  const touch = (x: number, r: number, up: 1 | -1): [number, number] => [x - r * Math.sin(lean), y - up * r * Math.cos(lean)]
  const hangs = of.strain !== null && of.strain <= 0
  const [top1, top2, low2, low1] = [touch(x1, a, 1), touch(x2, b, 1), touch(x2, b, -1), touch(x1, a, -1)]
  const sag = hangs ? 26 : 0
  const path = `M${top1}Q${(top1[0] + top2[0]) / 2} ${(top1[1] + top2[1]) / 2 + sag} ${top2}A${b} ${b} 0 ${lean > 0 ? 1 : 0} 1 ${low2}Q${(low1[0] + low2[0]) / 2} ${(low1[1] + low2[1]) / 2 + sag} ${low1}A${a} ${a} 0 ${lean > 0 ? 0 : 1} 1 ${top1}Z`
  const stretch = of.strain === null ? 'the pulleys would touch' : hangs ? 'it hangs' : `stretched ${(100 * of.strain).toFixed(1)} %`
  return (
    <Drawing says={`Pulleys of ${short(of.motor)} and ${short(of.gear)} mm, ${short(of.centres)} mm apart; ${stretch}`} width={560} height={210}>
      <circle cx={x1} cy={y} r={k * r1} fill="var(--mat)" stroke="var(--ink)" />
      <circle cx={x2} cy={y} r={k * r2} fill="var(--mat)" stroke="var(--ink)" />
      <path d={path} fill="none" stroke={hangs ? 'var(--danger)' : 'var(--ink)'} strokeWidth={Math.max(3, k * of.section)} strokeDasharray={of.strain === null ? '6 6' : undefined} />
      <text x={x1} y={200} textAnchor="middle">{short(of.motor)} mm</text>
      <text x={x2} y={200} textAnchor="middle">{short(of.gear)} mm</text>
      <text x={(x1 + x2) / 2} y={y + 5} textAnchor="middle">{short(of.centres)} mm</text>
      <text x={548} y={26} textAnchor="end" fontSize="20" fontWeight="bold">{stretch}</text>
    </Drawing>
  )
}

import { Drawing, short } from './drawing'

export interface SwitchPicture {
  at_rest: string
  presses: { closes: boolean; travel: number | null; ohm: number | null }[]
}

const BEST = 55

/** Each press along its travel: where it switched, or that it did not. */
export function Switch({ of }: { of: SwitchPicture }) {
  if (of.presses.length === 0) return null
  const height = 50 + 30 * of.presses.length
  const x = (percent: number) => 110 + 3.2 * percent
  const switched = of.presses.filter((p) => p.closes).length
  return (
    <Drawing says={`${switched} of ${of.presses.length} presses switched`} width={560} height={height}>
      <rect x={x(BEST - 24)} y={30} width={x(BEST + 24) - x(BEST - 24)} height={height - 40} fill="var(--verdigris-soft)" />
      <text x={x(0)} y={22}>rest</text>
      <text x={x(BEST)} y={22} textAnchor="middle" fill="var(--verdigris)">usual</text>
      <text x={x(100)} y={22} textAnchor="end">pressed home</text>
      {of.presses.map((p, n) => {
        const y = 50 + 30 * n
        return (
          <g key={n}>
            <text x={20} y={y + 5} fontWeight="bold" className="figures">{n + 1}</text>
            <line x1={x(0)} x2={x(100)} y1={y} y2={y} stroke="var(--line)" strokeWidth="3" />
            {p.closes ? <circle cx={x(p.travel ?? 100)} cy={y} r={8} fill="var(--ink)" fillOpacity={p.travel === null ? 0.35 : 1} /> : <path d={`M${x(100) - 9} ${y - 9}l18 18m0 -18l-18 18`} stroke="var(--danger)" strokeWidth="4" />}
            <text x={545} y={y + 5} textAnchor="end" className="figures">{p.closes ? (p.ohm === null ? '' : `${short(p.ohm)} Ω`) : 'missed'}</text>
          </g>
        )
      })}
    </Drawing>
  )
}

type Pair = [string, number, number]
export interface FlexPicture {
  tracks: number
  next: Pair | null
  found: [string, number] | null
  done: [string, number, number, boolean][]
}

/** The tracks from this end (top) to the far one, what was read closed or open, and the pair that comes next. */
export function Flex({ of }: { of: FlexPicture }) {
  const step = 520 / Math.max(of.tracks - 1, 1)
  const x = (n: number) => 20 + step * (n - 1)
  const [top, low] = [46, 154]
  const line = ([where, i, j]: Pair): string => (where === 'side' ? `M${x(i)} ${top}C${x(i)} ${top - 30} ${x(j)} ${top - 30} ${x(j)} ${top}` : `M${x(i)} ${top}L${x(j)} ${low}`)
  const closed = of.done.filter((d) => d[3]).length
  return (
    <Drawing says={`${of.tracks} tracks; ${closed} readings closed, ${of.done.length - closed} open`} width={560} height={200}>
      {Array.from({ length: of.tracks }, (_, k) => k + 1).map((n) => (
        <g key={n}>
          <line x1={x(n)} x2={x(n)} y1={top} y2={low} stroke="var(--line)" strokeWidth={Math.min(6, step / 2)} />
          {(n === 1 || n === of.tracks || n % 5 === 0) && <text x={x(n)} y={188} textAnchor="middle">{n}</text>}
        </g>
      ))}
      {of.done.map(([where, i, j, isClosed], k) => (
        <path key={k} d={line([where, i, j])} fill="none" stroke={isClosed ? 'var(--verdigris)' : 'var(--danger)'} strokeWidth="3.5" strokeDasharray={isClosed ? undefined : '4 7'} />
      ))}
      {of.next && (
        <>
          <path d={line(of.next)} fill="none" stroke="var(--ink)" strokeWidth="5" strokeOpacity="0.85" />
          <circle cx={x(of.next[1])} cy={top} r={8} fill="var(--ink)" />
          <circle cx={x(of.next[2])} cy={of.next[0] === 'side' ? top : low} r={8} fill="var(--ink)" />
          <text x={x(of.next[1])} y={22} textAnchor="middle" fontSize="18" fontWeight="bold">{of.next[1]}</text>
        </>
      )}
    </Drawing>
  )
}

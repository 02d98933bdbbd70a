import { Drawing } from './drawing'

export interface ScrewsPicture {
  groups: { name: string; length: number; thread: number; count: number; wrong: number }[]
}

const ROW = 44
const MM = 9
const HEAD = 12

/** Each group's screw to scale, and as much of its places hatched as probably hold a wrong one. */
export function Screws({ of: { groups } }: { of: ScrewsPicture }) {
  const longest = Math.max(...groups.map((g) => g.length))
  const scale = Math.min(MM, 170 / longest)
  const says = groups.map((g) => `${g.name}: ${g.count} of ${g.length} mm, about ${g.wrong} wrong`).join('; ')
  return (
    <Drawing says={says} width={520} height={groups.length * ROW + 12}>
      {groups.map((g, n) => (
        <g key={g.name} transform={`translate(14 ${n * ROW + 26})`}>
          <rect x={0} y={-g.thread * scale} width={HEAD} height={2 * g.thread * scale} rx={3} />
          <rect x={HEAD} y={(-g.thread * scale) / 2} width={g.length * scale} height={g.thread * scale} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1.6} />
          <text x={HEAD + g.length * scale + 8} y={5}>
            {g.length} mm
          </text>
          <text x={270} y={-1}>
            {g.name}
          </text>
          <rect x={270} y={6} width={200} height={9} fill="var(--mat)" stroke="var(--ink)" />
          <rect x={270} y={6} width={(200 * g.wrong) / Math.max(g.count, 1)} height={9} fill="var(--ember)" />
          <text x={478} y={15}>
            {g.wrong}/{g.count}
          </text>
        </g>
      ))}
    </Drawing>
  )
}

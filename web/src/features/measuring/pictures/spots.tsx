import { Drawing } from './drawing'

export interface SpotsPicture {
  spots: { name: string; looked: number; next: boolean }[]
}

const ROW = 34

/** Where things come to rest: a filled ring for each look, and an arrow at the place that is looked at next. */
export function Spots({ of: { spots } }: { of: SpotsPicture }) {
  const says = spots.map((s) => `${s.name}: looked at ${s.looked} times${s.next ? ', next' : ''}`).join('; ')
  return (
    <Drawing says={says} width={520} height={spots.length * ROW + 10}>
      {spots.map((s, n) => (
        <g key={s.name} transform={`translate(14 ${n * ROW + 22})`}>
          {s.next && <path d="M0 -8 L14 0 L0 8 z" fill="var(--ember)" />}
          <text x={24} y={5} fontWeight={s.next ? 700 : 400}>
            {s.name}
          </text>
          {Array.from({ length: Math.min(Math.max(s.looked, 1), 9) }, (_, k) => (
            <circle key={k} cx={310 + k * 22} cy={0} r={8} fill={k < s.looked ? 'var(--ink)' : 'none'} stroke="var(--ink)" strokeWidth={1.6} />
          ))}
        </g>
      ))}
    </Drawing>
  )
}

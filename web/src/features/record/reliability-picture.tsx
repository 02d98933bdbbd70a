import { percent } from '@/lib/words'
import type { Reliability } from './record-queries'

const SIZE = 320
const EDGE = 62
const RIGHT = 24
const at = (p: number) => EDGE + p * (SIZE - EDGE - RIGHT)
const up = (p: number) => SIZE - EDGE - p * (SIZE - EDGE - RIGHT)
const MARKS = [0, 0.25, 0.5, 0.75, 1]

/** Said along the foot, come true upwards: on the line it was honest, below it too hopeful. The table beside it says the same. */
export function ReliabilityPicture({ of }: { of: Reliability }) {
  return (
    <svg viewBox={`0 0 ${SIZE} ${SIZE}`} role="img" aria-label={wordsOf(of)} className="w-full max-w-96">
      <line x1={at(0)} y1={up(0)} x2={at(1)} y2={up(1)} className="stroke-ink/45" strokeDasharray="5 5" />
      {MARKS.map((m) => (
        <g key={m} className="fill-quiet text-[14.5px]">
          <line x1={at(m)} y1={up(0)} x2={at(m)} y2={up(1)} className="stroke-line" />
          <line x1={at(0)} y1={up(m)} x2={at(1)} y2={up(m)} className="stroke-line" />
          <text x={at(m)} y={SIZE - EDGE + 18} textAnchor="middle">
            {100 * m}%
          </text>
          <text x={EDGE - 6} y={up(m) + 4} textAnchor="end">
            {100 * m}%
          </text>
        </g>
      ))}
      <text x={at(0.5)} y={SIZE - 8} textAnchor="middle" className="fill-ink text-[14.5px]">
        said to cure
      </text>
      <text x={12} y={up(0.5)} textAnchor="middle" transform={`rotate(-90 12 ${up(0.5)})`} className="fill-ink text-[14.5px]">
        cured
      </text>
      {of.groups.map((g) => (
        <g key={g.said} className={g.n < 20 ? 'fill-quiet stroke-quiet' : 'fill-verdigris stroke-verdigris'}>
          <line x1={at(g.said)} x2={at(g.said)} y1={up(g.low)} y2={up(g.high)} strokeWidth={3} strokeLinecap="round" />
          <circle cx={at(g.said)} cy={up(g.came / g.n)} r={6} />
        </g>
      ))}
    </svg>
  )
}

const wordsOf = (of: Reliability): string => of.groups.map((g) => `said ${percent(g.said)}, cured ${percent(g.came / g.n)} of ${g.n}`).join('; ')

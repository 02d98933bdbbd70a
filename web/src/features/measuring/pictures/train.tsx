import type { ReactNode } from 'react'
import { Drawing } from './drawing'

export interface TrainPicture {
  parts: { id: string; name: string; right: string; wrong: string; stands: string }[]
}

const HIGH = 74
const SAYS: Record<string, string> = { right: 'as it should', off: 'not as it should', broken: 'broken or not there' }

/** Each part as it stands at rest beside how it looks out of step; the one that was seen is framed. */
export function Train({ of: { parts } }: { of: TrainPicture }) {
  const says = parts.map((p) => `${p.name}: ${SAYS[p.stands] ?? ''}; at rest ${p.right}, out of step ${p.wrong}`).join('. ')
  return (
    <Drawing says={says} width={540} height={parts.length * HIGH + 26}>
      <text x={110} y={18} fill="var(--quiet)">
        at rest
      </text>
      <text x={330} y={18} fill="var(--quiet)">
        out of step
      </text>
      {parts.map((p, n) => (
        <g key={p.id} transform={`translate(8 ${n * HIGH + 26})`}>
          <text x={2} y={38} fontWeight={700}>
            {p.name}
          </text>
          <Pose x={100} part={p.id} words={p.right} isSeen={p.stands === 'right'} isHome />
          <Pose x={320} part={p.id} words={p.wrong} isSeen={p.stands === 'off'} isHome={false} />
          {p.stands === 'broken' && (
            <text x={526} y={38} textAnchor="end" fill="var(--danger)" fontWeight={700}>
              ✕
            </text>
          )}
        </g>
      ))}
    </Drawing>
  )
}

function Pose({ x, part, words, isSeen, isHome }: { x: number; part: string; words: string; isSeen: boolean; isHome: boolean }) {
  return (
    <g transform={`translate(${x} 4)`}>
      <rect x={0} y={0} width={200} height={HIGH - 10} rx={6} fill="none" stroke={isSeen ? 'var(--ink)' : 'var(--line)'} strokeWidth={isSeen ? 2.4 : 1} />
      <g fill="none" stroke="var(--ink)" strokeWidth={2}>
        {SHAPES[part]?.(isHome, isHome ? 'var(--ink)' : 'var(--ember)')}
      </g>
      <text x={8} y={57} fontSize={14}>
        {words}
      </text>
    </g>
  )
}

/** A stop, as a hatched wall. */
const wall = (x: number) => <path d={`M${x} 6 v34 m0 -34 l6 5 m-6 5 l6 5 m-6 5 l6 5 m-6 5 l6 5`} strokeWidth={1.5} />

/** How each part looks: at home, or not; what moved is in the second colour. */
const SHAPES: Record<string, (isHome: boolean, moved: string) => ReactNode> = {
  gears: (isHome, moved) => (
    <>
      <circle cx={40} cy={24} r={16} />
      <circle cx={73} cy={24} r={16} />
      <path d="M46 24 h10" strokeWidth={4} />
      <path d={isHome ? 'M58 24 h10' : 'M60 34 l8 -5'} stroke={moved} strokeWidth={4} />
    </>
  ),
  slider: (isHome, moved) => (
    <>
      {wall(14)}
      <rect x={isHome ? 14 : 60} y={15} width={80} height={16} rx={2} stroke={moved} />
      <path d="M14 40 h150" strokeWidth={1} />
    </>
  ),
  arms: (isHome, moved) => (
    <>
      <circle cx={30} cy={12} r={3} />
      <circle cx={30} cy={36} r={3} />
      <path d="M30 12 h70" strokeWidth={4} />
      <path d={isHome ? 'M30 36 h70' : 'M30 36 l64 -20'} stroke={moved} strokeWidth={4} />
    </>
  ),
  flap: (isHome, moved) => (
    <>
      <path d="M14 38 h150" strokeWidth={1} />
      <circle cx={30} cy={34} r={3} />
      <path d={isHome ? 'M30 34 h66' : 'M30 34 l52 -26'} stroke={moved} strokeWidth={4} />
    </>
  ),
  rack: (isHome, moved) => (
    <>
      <circle cx={50} cy={14} r={11} />
      <path d="M50 20 v6" strokeWidth={4} />
      <path d={`M${isHome ? 20 : 34} 40 v-8 h8 v8 h8 v-8 h8 v8 h8 v-8 h8 v8 h8 v-8 h8 v8`} stroke={moved} />
      <path d="M50 30 v12" strokeWidth={1} strokeDasharray="2 2" />
    </>
  ),
  lift: (isHome, moved) => (
    <>
      <path d="M20 6 v36 M120 6 v36" strokeWidth={1} />
      <path d={isHome ? 'M16 10 h108' : 'M16 25 h108'} stroke={moved} strokeWidth={5} />
      <path d="M60 42 v-8 h20 v8" strokeWidth={1.5} />
    </>
  ),
  lever: (isHome, moved) => (
    <>
      <circle cx={100} cy={20} r={6} fill="var(--ink)" />
      <circle cx={24} cy={36} r={3} />
      <path d={isHome ? 'M24 36 l68 -12' : 'M24 36 l72 2'} stroke={moved} strokeWidth={4} />
    </>
  ),
}

import type { DonorDetail } from '@/api/types'

type Piece = DonorDetail['pieces'][number]
const DECK = ['pickup', 'spindle_motor', 'feed_motor', 'rails', 'follower', 'flex_pickup', 'hub', 'switch_sled']
const BOARD = ['chip', 'driver', 'capacitors', 'fuse']

const ACROSS = 5
const W = 108
const rowHeight = (pieces: number): number => 24 + Math.max(1, Math.ceil(pieces / ACROSS)) * 58

/** A donor pulled apart: the deck and the board opened out, every piece by what is known of it. The list below says the same in words. */
export function DonorPlan({ donor }: { donor: DonorDetail }) {
  const by = new Map(donor.pieces.map((p) => [p.level, p]))
  const pick = (levels: readonly string[]) => levels.flatMap((l) => by.get(l) ?? [])
  const loading = donor.pieces.filter((p) => !['drive', 'deck', 'board'].includes(p.level) && !DECK.includes(p.level) && !BOARD.includes(p.level))
  const groups = [
    { whole: by.get('deck'), pieces: pick(DECK) },
    { whole: undefined, pieces: loading },
    { whole: by.get('board'), pieces: pick(BOARD) },
  ]
  const tops = groups.map((_, n) => 4 + groups.slice(0, n).reduce((sum, g) => sum + rowHeight(g.pieces.length), 0))
  const height = tops.at(-1)! + rowHeight(groups.at(-1)!.pieces.length)
  const said = donor.pieces.map((p) => `${p.level_name} ${p.gone ? 'gone' : stateOf(p)}`).join(', ')
  return (
    <svg viewBox={`0 0 760 ${height}`} role="img" aria-label={`${donor.tag} pulled apart: ${said}.`} className="mx-auto block w-full max-w-4xl min-w-[54rem]">
      {groups.map((g, n) => {
        const top = tops[n]!
        const tall = rowHeight(g.pieces.length)
        return (
          <g key={n}>
            <rect x="2" y={top} width="756" height={tall - 6} rx="10" fill="var(--tape)" stroke="var(--line)" />
            <path d={`M130 ${top + tall / 2 - 3}h18`} stroke="var(--quiet)" strokeDasharray="3 4" fill="none" />
            {g.whole ? (
              <PieceBox piece={g.whole} x={14} y={top + 8} w={114} h={tall - 22} />
            ) : (
              <text x="71" y={top + tall / 2} textAnchor="middle" fontSize="13" fill="var(--quiet)">
                the rest
              </text>
            )}
            {g.pieces.map((p, k) => (
              <PieceBox key={p.level} piece={p} x={152 + (k % ACROSS) * (W + 13)} y={top + 8 + Math.floor(k / ACROSS) * 58} w={W} h={50} />
            ))}
          </g>
        )
      })}
    </svg>
  )
}

const stateOf = (p: Piece): string => {
  const states = Object.values(p.functions)
  const [works, fails, suspect] = ['works', 'fails', 'suspect'].map((s) => states.filter((x) => x === s).length)
  if (fails) return works ? 'fails in part' : 'fails'
  if (suspect) return 'suspect'
  return works === states.length ? 'works' : works ? 'works in part' : 'untested'
}
const FILLS: Record<string, string> = { works: 'var(--verdigris-soft)', 'works in part': 'var(--paper)', fails: 'var(--ember-soft)', 'fails in part': 'var(--ember-soft)', suspect: 'var(--paper)', untested: 'var(--paper)' }
const INKS: Record<string, string> = { works: 'var(--verdigris)', fails: 'var(--ember-deep)', 'fails in part': 'var(--ember-deep)', suspect: 'var(--ember-deep)' }

function PieceBox({ piece, x, y, w, h }: { piece: Piece; x: number; y: number; w: number; h: number }) {
  const state = piece.gone ? 'gone' : stateOf(piece)
  const words = piece.level_name.split(' ')
  const lines = piece.level_name.length > 14 && words.length > 1 ? [words.slice(0, -1).join(' '), words.at(-1)!] : [piece.level_name]
  const ink = piece.gone ? 'var(--quiet)' : 'var(--ink)'
  return (
    <g>
      <rect x={x} y={y} width={w} height={h} rx="6" fill={FILLS[state] ?? 'none'} stroke={ink} strokeWidth={piece.gone ? 1 : 1.6} strokeDasharray={piece.gone || state === 'untested' ? '4 4' : undefined} />
      {lines.map((t, n) => (
        <text key={t} x={x + w / 2} y={y + h / 2 - 3 + (n - (lines.length - 1)) * 13} textAnchor="middle" fontSize="13" fontWeight="600" fill={ink}>
          {t}
        </text>
      ))}
      <text x={x + w / 2} y={y + h / 2 + 14} textAnchor="middle" fontSize="12.5" fill={INKS[state] ?? 'var(--quiet)'}>
        {state}
      </text>
    </g>
  )
}

import type { Baseline } from '@/api/types'

/** The stages as discs on a line, in the order in which a drive goes through them. */
export function StageChain({ entries, current, onPick }: { entries: Baseline[]; current: Baseline | null; onPick: (entry: Baseline) => void }) {
  return (
    <ol className="relative grid grid-cols-5 gap-y-2 xl:auto-cols-fr xl:grid-flow-col xl:grid-cols-none" aria-label="Baseline stages">
      {entries.map((entry) => {
        const isNow = entry === current
        return (
          <li key={entry.question.id}>
            <button
              type="button"
              aria-current={isNow ? 'step' : undefined}
              onClick={() => onPick(entry)}
              className={`flex w-full flex-col items-center rounded-lg px-0.5 py-1 text-center hover:bg-mat ${isNow ? 'bg-mat' : ''}`}
            >
              <Disc entry={entry} isNow={isNow} />
              <span className={`text-tiny leading-tight ${isNow ? 'font-bold' : ''}`}>{entry.name}</span>
              <span className="figures text-tiny text-quiet">{count(entry)}</span>
              <span className="sr-only">: {said(entry)}</span>
            </button>
          </li>
        )
      })}
    </ol>
  )
}

function Disc({ entry, isNow }: { entry: Baseline; isNow: boolean }) {
  const a = entry.answer
  const look = !a ? 'fill-paper stroke-line' : a.outcome === 'cant_tell' ? 'fill-mat stroke-quiet' : a.is_failure ? 'fill-ember stroke-ember' : 'fill-verdigris stroke-verdigris'
  return (
    <svg viewBox="0 0 44 28" className="h-7 w-11" aria-hidden="true">
      <ellipse cx="22" cy="14" rx="17" ry="10" strokeWidth={isNow ? 3 : 2} className={isNow && !a ? 'fill-ember-soft stroke-ink' : look} />
      {!a && <ellipse cx="22" cy="14" rx="4" ry="2.4" fill="none" className="stroke-quiet" strokeWidth="1.4" />}
      {a && a.outcome === 'cant_tell' && (
        <text x="22" y="18.5" textAnchor="middle" fontSize="13" fontWeight="700" fill="var(--ink)">
          ?
        </text>
      )}
      {a && a.outcome !== 'cant_tell' && !a.is_failure && <path d="M15 14l5 4.6 9-9" fill="none" stroke="var(--paper)" strokeWidth="3" />}
      {a?.is_failure && <path d="M16.5 9.5l11 9m0-9l-11 9" fill="none" stroke="var(--paper)" strokeWidth="3" />}
    </svg>
  )
}

const count = ({ answer }: Baseline): string => (answer?.tries ? `${answer.tries - (answer.failed ?? 0)}/${answer.tries}` : answer && answer.outcome !== 'cant_tell' ? (answer.is_failure ? '0/1' : '1/1') : ' ')

const said = ({ answer }: Baseline): string => {
  if (!answer) return 'not tried yet'
  const tries = answer.tries ? `, ${answer.failed ?? 0} of ${answer.tries} tries failed` : ''
  return `${answer.label}${tries}`
}

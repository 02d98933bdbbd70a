import type { Baseline } from '@/api/types'
import { discClass } from '@/lib/words'

interface Props {
  entries: Baseline[]
  current: Baseline | null
  onPick: (entry: Baseline) => void
}

export function ClassMatrix({ entries, current, onPick }: Props) {
  return (
    <table className="w-full text-left">
      <thead className="text-tiny text-quiet">
        <tr>
          <th className="py-1 font-normal">Disc</th>
          <th className="font-normal">Light</th>
          <th className="w-3/5 font-normal">Known-clean shop disc</th>
        </tr>
      </thead>
      <tbody>
        {entries.map((entry) => (
          <tr key={entry.question.id} className="border-t border-line">
            <th scope="row" className="py-1 font-normal first-letter:uppercase">
              {discClass(entry.question.id)}
            </th>
            <td className="figures">{entry.nm} nm</td>
            <td className="p-0">
              <Cell entry={entry} isCurrent={entry === current} onPick={() => onPick(entry)} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Cell({ entry, isCurrent, onPick }: { entry: Baseline; isCurrent: boolean; onPick: () => void }) {
  if (!entry.is_supported) return <div className="hatch px-3 py-2 text-quiet">never read on this model: no evidence</div>
  const a = entry.answer
  const tone = !a || a.outcome === 'cant_tell' ? '' : a.outcome === 'reads' ? 'bg-verdigris-soft text-verdigris' : 'bg-ember-soft text-ember-deep'
  return (
    <button
      type="button"
      onClick={onPick}
      aria-current={isCurrent ? 'true' : undefined}
      className={`min-h-11 w-full px-3 py-1.5 text-left ${tone} ${isCurrent ? 'outline-2 -outline-offset-2 outline-ink' : 'hover:bg-mat'}`}
    >
      {a ? a.label : isCurrent ? 'being tried now' : 'not tried'}
      {a?.tries && ` (${a.failed ?? 0} of ${a.tries} failed)`}
      {a?.seconds && (
        <span className="block text-tiny text-ink">
          <span className="figures">{a.seconds} s</span>: {a.time_says}
        </span>
      )}
    </button>
  )
}

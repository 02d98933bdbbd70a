import { dayOf } from '@/lib/dates'
import { inTen } from '@/lib/words'
import { usePromise } from './intake-queries'

/** By when a unit of this drive would be done if it came in now, and whose promise that would move. It is a help, and nothing waits for it. */
export function LikelyDays({ sheetId, value, onPick }: { sheetId: number; value: string; onPick: (date: string) => void }) {
  const likely = usePromise(sheetId)
  if (!likely.data) return <p className="mt-2 text-tiny text-quiet">{likely.isError ? 'By when it would be done could not be fetched.' : 'By when would it be done…'}</p>
  if (!likely.data.is_ready) return <p className="mt-2 text-tiny text-quiet">By when it would be done is not worked out yet.</p>
  const { days, moved } = likely.data
  return (
    <div className="mt-2 space-y-1.5">
      <p className="text-tiny text-quiet">If it came in now, it would be done by the end of:</p>
      <ul className="flex flex-wrap gap-1.5">
        {days.map((d) => (
          <li key={d.day}>
            <button
              type="button"
              aria-pressed={value === d.day}
              onClick={() => onPick(value === d.day ? '' : d.day)}
              className="min-h-11 rounded-lg border border-ink/45 bg-paper px-2.5 leading-tight aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
            >
              {dayOf(d.day)}
              <span className="block text-tiny font-semibold">{inTen(d.p)}</span>
            </button>
          </li>
        ))}
      </ul>
      {moved.length > 0 && <p className="text-tiny">It would move other promises: {moved.map((m) => `${m.tag} from ${inTen(m.before)} to ${inTen(m.after)}`).join(', ')}.</p>}
    </div>
  )
}

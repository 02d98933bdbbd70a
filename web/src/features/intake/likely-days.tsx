import { dayOf } from '@/lib/dates'
import { inTen } from '@/lib/words'
import { ToggleRow } from '@/ui/toggle-row'
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
      <ToggleRow
        label="By when it would be done"
        choices={days.map((d) => ({ id: d.day, label: <Day day={d.day} p={d.p} /> }))}
        value={value}
        onChange={onPick}
      />
      {moved.length > 0 && <p className="text-tiny">It would move other promises: {moved.map((m) => `${m.tag} from ${inTen(m.before)} to ${inTen(m.after)}`).join(', ')}.</p>}
    </div>
  )
}

const Day = ({ day, p }: { day: string; p: number }) => (
  <>
    {dayOf(day)}
    <span className="block text-tiny font-semibold">{inTen(p)}</span>
  </>
)

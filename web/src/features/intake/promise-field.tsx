import { useState } from 'react'
import { dayOf, daysUntil, inDays, nextFriday } from '@/lib/dates'
import { TextField } from '@/ui/field'
import { ToggleRow } from '@/ui/toggle-row'
import { LikelyDays } from './likely-days'

interface Props {
  value: string
  /** The drive of the unit that comes in now, if it is known: its chances stand at the days then. */
  sheetId?: number | undefined
  isMeant: boolean
  onChange: (date: string) => void
  onMeant: (isMeant: boolean) => void
}

/** A promise by a press, or a date that says its weekday; a day that has passed asks back. */
export function PromiseField({ value, sheetId, isMeant, onChange, onMeant }: Props) {
  const now = new Date()
  const chips = [
    { says: 'Tomorrow', date: inDays(1, now) },
    { says: 'Friday', date: nextFriday(now) },
    { says: 'In a week', date: inDays(7, now) },
  ].filter((c, n, all) => all.findIndex((d) => d.date === c.date) === n)
  const [isOther, setOther] = useState(() => value !== '' && chips.every((c) => c.date !== value))
  const isPast = value !== '' && daysUntil(value, now) < 0
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Promised for</legend>
      <div className="flex flex-wrap gap-1.5">
        <ToggleRow label="Soon" choices={chips.map((c) => ({ id: c.date, label: c.says }))} value={value} onChange={onChange} />
        <button type="button" aria-expanded={isOther} onClick={() => setOther(!isOther)} className="min-h-11 px-3 underline underline-offset-2">
          Another day
        </button>
      </div>
      {sheetId !== undefined && <LikelyDays sheetId={sheetId} value={value} onPick={onChange} />}
      <div className="mt-2 flex flex-wrap items-end gap-x-3">
        {isOther && (
          <div className="w-44">
            <TextField label="On" type="date" value={value} onChange={(e) => onChange(e.target.value)} />
          </div>
        )}
        <p className="min-h-11 content-center font-semibold" aria-live="polite">
          {value ? dayOf(value) : 'no promise yet'}
        </p>
      </div>
      {isPast && (
        <label className="mt-1 flex min-h-11 items-center gap-2 text-danger">
          <input type="checkbox" className="size-6" checked={isMeant} onChange={(e) => onMeant(e.target.checked)} />
          That day has passed. It is meant so.
        </label>
      )}
    </fieldset>
  )
}

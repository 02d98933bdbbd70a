import { dayOf } from '@/lib/dates'
import { inTen } from '@/lib/words'
import { Chip } from '@/ui/panel'
import type { WeekRow } from './day-queries'

/** A promise with its chance; what is done already needs none. */
export function Promised({ row }: { row: Pick<WeekRow, 'promised_on' | 'p_kept' | 'first'> }) {
  if (row.promised_on === null || row.p_kept === null) return <span className="text-quiet">no promise yet</span>
  return (
    <span className="flex items-center gap-2">
      <span className="font-semibold">{dayOf(row.promised_on)}</span>
      {row.first !== null && <Chip tone={row.p_kept < 0.5 ? 'danger' : row.p_kept < 0.8 ? 'brass' : 'clear'}>{inTen(row.p_kept)}</Chip>}
    </span>
  )
}

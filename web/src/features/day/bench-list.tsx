import { Navigate } from 'react-router'
import { kept } from '@/lib/kept'
import { Notice, Waiting } from '@/ui/panel'
import { rowsOf } from './day-groups'
import { useDay } from './day-queries'

/** "Bench" goes back to the unit that lay there last; else to the one promised first of those that can go on. */
export function BenchList() {
  const last = kept.read<string>('last-tag')
  const day = useDay()
  const lay = useDay(last ?? '')
  if (day.isPending || lay.isPending) return <Waiting what="Fetching the bench…" />
  const groups = day.data?.groups ?? []
  const there = rowsOf(lay.data).find((r) => r.tag === last) ?? groups.find((g) => g.acts === 'bench')?.rows[0] ?? rowsOf(day.data)[0]
  if (there) return <Navigate to={`/bench/${there.tag}`} replace />
  return (
    <div className="p-8">
      <Notice title="Nothing on the bench">Take a unit in, or scan a tag.</Notice>
    </div>
  )
}

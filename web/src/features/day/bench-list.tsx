import { Navigate } from 'react-router'
import { kept } from '@/lib/kept'
import { Notice, Waiting } from '@/ui/panel'
import { useDay } from './day-queries'

/** "Bench" goes back to the unit that lay there last; else to the one promised first that is past the counter. */
export function BenchList() {
  const day = useDay()
  const last = kept.read<string>('last-tag')
  if (day.isPending) return <Waiting what="Fetching the bench…" />
  const there = day.data?.find((r) => r.tag === last) ?? day.data?.find((r) => r.stage !== 'taken_in') ?? day.data?.[0]
  if (there) return <Navigate to={`/bench/${there.tag}`} replace />
  return (
    <div className="p-8">
      <Notice title="Nothing on the bench">Take a unit in, or scan a tag.</Notice>
    </div>
  )
}

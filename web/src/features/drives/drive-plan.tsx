import type { Drive, Suspect } from '@/api/types'
import { percent } from '@/lib/words'
import { BLANK, shadeOf } from './shade'
import { LidPlan } from './lid-plan'
import { SlotPlan } from './slot-plan'
import { TrayPlan } from './tray-plan'

const PLANS: Record<string, typeof SlotPlan> = { slot: SlotPlan, tray: TrayPlan, lid: LidPlan }

/** The drive seen from above, its parts shaded by suspicion. The same facts stand beside it as a list. */
export function DrivePlan({ drive, parts }: { drive: Drive; parts: readonly Suspect[] }) {
  const byId = new Map(parts.map((p) => [p.id, p]))
  const has = (id: string) => (id === 'trimmer' ? drive.has_trimmer : id === 'fuse' ? drive.fuse_rating !== '' : id === 'belt' ? drive.has_belt : true)
  const shade = (id: string) => (parts.length === 0 ? (has(id) ? BLANK : null) : byId.has(id) ? shadeOf(byId.get(id)!.p) : null)
  const said = parts
    .filter((p) => p.p >= 0.03)
    .map((p) => `${p.name} ${percent(p.p)}`)
    .join(', ')
  const Plan = PLANS[drive.family] ?? SlotPlan
  return <Plan drive={drive} shade={shade} title={parts.length === 0 ? 'Drive seen from above.' : `Drive seen from above. Suspicion: ${said || 'none shown'}.`} />
}

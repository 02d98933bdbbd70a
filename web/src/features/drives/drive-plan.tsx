import type { Drive, Suspect } from '@/api/types'
import { percent } from '@/lib/words'
import { SlotPlan } from './slot-plan'

export interface Shade {
  fill: string
  text: string
  label: string
  isCleared: boolean
}

/** Four steps of suspicion, and one for cleared: the number beside it says it too. */
export function shadeOf(p: number): Shade {
  const label = p < 0.005 ? '✓' : percent(p).replace('%', '')
  if (p < 0.005) return { fill: 'var(--verdigris-soft)', text: 'var(--verdigris)', label, isCleared: true }
  if (p < 0.03) return { fill: 'var(--paper)', text: 'var(--ink)', label, isCleared: false }
  if (p < 0.1) return { fill: 'color-mix(in srgb, var(--ember) 16%, var(--paper))', text: 'var(--ink)', label, isCleared: false }
  if (p < 0.3) return { fill: 'color-mix(in srgb, var(--ember) 36%, var(--paper))', text: 'var(--ink)', label, isCleared: false }
  return { fill: 'var(--ember)', text: 'var(--paper)', label, isCleared: false }
}

/** A sheet has no suspects: its plan only says where things are. */
const BLANK: Shade = { fill: 'var(--paper)', text: 'var(--ink)', label: '', isCleared: false }

/** The drive seen from above, its parts shaded by suspicion. The same facts stand beside it as a list. */
export function DrivePlan({ drive, parts }: { drive: Drive; parts: readonly Suspect[] }) {
  const byId = new Map(parts.map((p) => [p.id, p]))
  const has = (id: string) => (id === 'trimmer' ? drive.has_trimmer : id === 'fuse' ? drive.fuse_rating !== '' : true)
  const shade = (id: string) => (parts.length === 0 ? (has(id) ? BLANK : null) : byId.has(id) ? shadeOf(byId.get(id)!.p) : null)
  const said = parts
    .filter((p) => p.p >= 0.03)
    .map((p) => `${p.name} ${percent(p.p)}`)
    .join(', ')
  return <SlotPlan drive={drive} shade={shade} title={parts.length === 0 ? 'Drive seen from above.' : `Drive seen from above. Suspicion: ${said || 'none shown'}.`} />
}

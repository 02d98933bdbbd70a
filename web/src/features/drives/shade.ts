import { percent } from '@/lib/words'

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
export const BLANK: Shade = { fill: 'var(--paper)', text: 'var(--ink)', label: '', isCleared: false }

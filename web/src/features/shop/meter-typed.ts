import type { components } from '@/api/schema'

type Reads = components['schemas']['FunctionIn']
export interface Typed {
  pct: string
  digits: string
  resolution: string
}
export interface TypedRange extends Typed {
  id: number
  upTo: string
}
/** What a meter reads of one quantity as it is typed, its numbers as text. */
export interface TypedReads extends Typed {
  ranges: TypedRange[]
}

export const USUAL: TypedReads = { pct: '0.5', digits: '3', resolution: '', ranges: [] }
export const numberOf = (text: string): number => Number(text.replace(',', '.'))
export const isNumber = (text: string): boolean => text === '' || numberOf(text) >= 0

const shown = (value: number | undefined): string => (value ? String(value) : '')
const typed = (sure: Partial<Reads>): Typed => ({ pct: shown(sure.pct ?? 0.5), digits: shown(sure.digits ?? 3), resolution: shown(sure.resolution) })
const sureOf = ({ pct, digits, resolution }: Typed) => ({ pct: numberOf(pct), digits: numberOf(digits), resolution: numberOf(resolution) })

export const typedReads = (told: Partial<Reads>): TypedReads => ({ ...typed(told), ranges: (told.ranges ?? []).map((r, id) => ({ id, ...typed(r), upTo: shown(r.up_to) })) })
export const readsOf = (said: TypedReads): Reads => ({ ...sureOf(said), ranges: said.ranges.map((r) => ({ ...sureOf(r), up_to: numberOf(r.upTo) })) })
/** Every number is one, and every range says where it ends. */
export const isWhole = (said: TypedReads): boolean => [said, ...said.ranges].every((t) => [t.pct, t.digits, t.resolution].every(isNumber)) && said.ranges.every((r) => numberOf(r.upTo) > 0)

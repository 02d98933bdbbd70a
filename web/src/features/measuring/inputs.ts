import type { ToolField } from '@/api/types'

export type Value = string | number | boolean | null | undefined | Value[] | { [name: string]: Value }
export type Inputs = Record<string, Value>

const UNITS: Record<string, string> = { voltage: 'V', resistance: 'Ω', current: 'A' }
const BARE = /^\s*[+-]?(\d+([.,]\d*)?|[.,]\d+)\s*$/

/** The unit that a bare number gets: the field's own, or the one that the limit beside it is written in. */
export function unitOf(field: ToolField, all: Inputs): string {
  if (field.quantity !== '*') return field.unit
  const beside = typeof all.low === 'string' ? /[a-zA-ZµΩ]+\s*$/.exec(all.low)?.[0].trim() : ''
  return beside || UNITS[String(all.quantity)] || ''
}

/** What a field is about: its own quantity, or the one that the form names. */
export const kindOf = (field: ToolField, all: Inputs): string => (field.quantity === '*' ? String(all.quantity ?? '') : field.quantity)

/** A bare number with the unit that stands beside its field; what bears a unit of its own stays as it is. */
export const withUnit = (text: string, unit: string): string => (unit && BARE.test(text) ? `${text.trim()} ${unit}` : text)

const isEmpty = (value: Value): boolean => value === undefined || value === null || value === '' || (Array.isArray(value) && value.length === 0)

/** What goes to the server: units said, nothing empty. */
export function ready(fields: readonly ToolField[], given: Inputs, all: Inputs = given): Inputs {
  const found: Inputs = {}
  for (const field of fields) {
    const value = ready1(field, given[field.id], all)
    if (!isEmpty(value)) found[field.id] = value
  }
  return found
}

function ready1(field: ToolField, value: Value, all: Inputs): Value {
  const unit = unitOf(field, all)
  if (field.kind === 'quantity' && typeof value === 'string') return withUnit(value, unit)
  if (field.kind === 'quantities' && Array.isArray(value)) return value.filter((v) => typeof v === 'string' && v.trim() !== '').map((v) => withUnit(String(v), unit))
  if (field.kind === 'rows' && Array.isArray(value)) return value.map((row) => ready(field.columns, row as Inputs, all))
  return value
}

/** Inputs as one text, whatever the order of their names: the tape keeps none. */
export const inOrder = (value: Value): string =>
  JSON.stringify(value, (_name, v: Value) => (v !== null && typeof v === 'object' && !Array.isArray(v) ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1))) : v))

export interface Fault {
  place: string
  text: string
}

const at = (given: Inputs, place: string): Value => place.split('/').slice(1).reduce<Value>((value, key) => (value as Record<string, Value> | undefined)?.[key], given)

/** What is wrong with what was typed, apart from what is still empty: nobody is told off for a field not reached yet. */
export function sorted(faults: readonly Fault[], given: Inputs): { wrong: Record<string, string>; missing: string[] } {
  const wrong: Record<string, string> = {}
  const missing: string[] = []
  for (const { place, text } of faults) {
    if (isEmpty(at(given, place))) missing.push(text.replace(/ is missing\.$/, ''))
    else wrong[place] = text
  }
  return { wrong, missing }
}

/** What stands in the form before anybody has typed. */
export const starting = (fields: readonly ToolField[]): Inputs => Object.fromEntries(fields.filter((f) => f.start !== '').map((f) => [f.id, f.start]))

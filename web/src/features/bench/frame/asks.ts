import type { components } from '@/api/schema'

/** Everything that can be asked of a job, told apart by `do`. */
export type Ask = components['schemas']['AskIn']['ask']
export type AskOf<D extends Ask['do']> = Extract<Ask, { do: D }>

/** An ask on its way: kept in this browser, for its own person, until the server has said yes or no. */
export interface Pending {
  ask: Ask
  key: string
  version: number
  says: string
}

export interface Conflict {
  /** The job's version by then: mine is written on top of it. */
  version: number
  changed: { by: string; at: string; text: string }[]
  pending: Pending
}

export type Send = (ask: Ask, says: string) => void
export type SaveNotes = (notes: Omit<AskOf<'amend'>, 'do'>) => void

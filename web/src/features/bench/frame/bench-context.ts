import { createContext, useContext } from 'react'
import type { Job } from '@/api/types'
import type { Ask, Send } from './asks'

export interface Bench {
  job: Job
  send: Send
  isBusy: boolean
  mayWork: boolean
  /** Opens what measures, for a question of the drive. */
  measure: (question: string) => void
  /** Opens the mat: the unit step by step, every screw in its place; to put it back, or as the stage asks. */
  openMat: (of?: { isBack: boolean }) => void
  /** What is on its way to the server, first to last. */
  onTheWay: readonly { ask: Ask; says: string }[]
}

export const BenchContext = createContext<Bench | null>(null)

export function useBench(): Bench {
  const bench = useContext(BenchContext)
  if (!bench) throw new Error('useBench outside of a bench screen')
  return bench
}

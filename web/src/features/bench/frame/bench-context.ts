import { createContext, useContext } from 'react'
import type { Job } from '@/api/types'
import type { Send } from './job-writes'

export interface Bench {
  job: Job
  send: Send
  isBusy: boolean
  mayWork: boolean
}

export const BenchContext = createContext<Bench | null>(null)

export function useBench(): Bench {
  const bench = useContext(BenchContext)
  if (!bench) throw new Error('useBench outside of a bench screen')
  return bench
}

import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf, ProblemError } from '@/api/problem'
import type { Told } from '@/api/types'
import { useSettled } from '@/lib/use-settled'
import type { Fault, Inputs } from './inputs'

/** Every calculator; with a job, also what the sheet of its drive already says. */
export const useTools = (tag?: string) =>
  useQuery({ queryKey: ['tools', tag ?? ''], queryFn: () => dataOf(client.GET('/api/tools', { params: { query: tag ? { tag } : {} } })) })

/** What stands on a job's tape of it, newest first. */
export const useMeasured = (tag: string | undefined) =>
  useQuery({ queryKey: ['measured', tag], queryFn: () => dataOf(client.GET('/api/jobs/{tag}/measured', { params: { path: { tag: tag! } } })), enabled: tag !== undefined, staleTime: 0 })

export interface Answered {
  told: Told | null
  faults: readonly Fault[]
  /** Why there is no answer at all: no network, no server. */
  problem: string
  /** The answer on screen is not that of what stands in the form, or not yet. */
  isWorking: boolean
}

/** The answer to what stands in the form, once the typing rests. The former one stays in sight meanwhile. */
export function useTold(tool: string, inputs: Inputs, tag?: string): Answered {
  const typed = JSON.stringify(inputs)
  const text = useSettled(typed)
  const asked = useQuery({
    queryKey: ['told', tool, tag ?? '', text],
    queryFn: () => dataOf(client.POST('/api/tools/{name}', { params: { path: { name: tool }, query: tag ? { tag } : {} }, body: { inputs: JSON.parse(text) as Record<string, unknown> } })),
    placeholderData: keepPreviousData,
    retry: (n, error) => !(error instanceof ProblemError) && n < 2,
    gcTime: 60_000,
  })
  return { told: asked.data?.told ?? null, faults: asked.data?.faults ?? [], problem: asked.isError ? asked.error.message : '', isWorking: asked.isFetching || text !== typed }
}

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { Intake } from '@/api/types'

export const usePrompts = () => useQuery({ queryKey: ['prompts'], queryFn: () => dataOf(client.GET('/api/prompts')), staleTime: Infinity })

export function useTakeIn() {
  const cache = useQueryClient()
  return useMutation({
    mutationFn: (body: Intake) => dataOf(client.POST('/api/jobs', { body })),
    onSuccess: (job) => {
      cache.setQueryData(['job', job.tag], job)
      void cache.invalidateQueries({ queryKey: ['day'] })
    },
  })
}

/** By when a unit of a drive that comes in now would be done: said once a minute, and nothing is held up by it. */
export const usePromise = (sheetId: number) =>
  useQuery({ queryKey: ['promise', sheetId], queryFn: () => dataOf(client.GET('/api/week/offer', { params: { query: { sheet_id: sheetId } } })), staleTime: 60_000, retry: false })

import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'

const BEAT_MS = 4_000

/** Follows a job that somebody else writes to, and says who else has it on their screen. A screen that nobody sees does not ask. */
export function usePulse(tag: string, version: number | undefined, isBusy: boolean): readonly string[] {
  const cache = useQueryClient()
  const beat = useQuery({
    queryKey: ['pulse', tag],
    queryFn: () => dataOf(client.POST('/api/jobs/{tag}/pulse', { params: { path: { tag } } })),
    refetchInterval: BEAT_MS,
    retry: false,
    enabled: version !== undefined,
  })
  const there = beat.data?.version
  useEffect(() => {
    if (there !== undefined && version !== undefined && there > version && !isBusy) void cache.invalidateQueries({ queryKey: ['job', tag] })
  }, [cache, there, version, isBusy, tag])
  return beat.data?.others ?? []
}

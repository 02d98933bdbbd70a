import { queryOptions, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { client } from '@/api/client'
import { dataOf, NoAnswerError, ProblemError, type Problem } from '@/api/problem'
import type { paths } from '@/api/schema'
import type { Job } from '@/api/types'
import { kept } from '@/lib/kept'

type JobPath = Extract<keyof paths, `/api/jobs/{tag}/${string}`>
export type WritePath = { [P in JobPath]: paths[P] extends { post: { requestBody: unknown } } ? P : never }[JobPath]
type RawBody<P extends WritePath> = paths[P] extends { post: { requestBody: { content: { 'application/json': infer B } } } } ? B : never
export type WriteBody<P extends WritePath> = Omit<RawBody<P>, 'key' | 'version'>

/** A write on its way: kept in this browser until the server has said yes or no. */
export interface Pending {
  path: WritePath
  body: object
  key: string
  version: number
  says: string
}

export interface Conflict {
  changed: { by: string; at: string; text: string }[]
  pending: Pending
}

export type Send = <P extends WritePath>(path: P, body: WriteBody<P>, says: string) => void

export type SaveNotes = (body: WriteBody<'/api/jobs/{tag}/intake'>) => void

const RETRY_MS = [1_000, 2_000, 4_000, 8_000]

const jobQuery = (tag: string) =>
  queryOptions({ queryKey: ['job', tag], queryFn: () => dataOf(client.GET('/api/jobs/{tag}', { params: { path: { tag } } })) })

export const useJob = (tag: string) => useQuery(jobQuery(tag))

export function useJobWrites(tag: string) {
  const cache = useQueryClient()
  const [pending, setPending] = useState<Pending | null>(null)
  const [isOffline, setOffline] = useState(false)
  const [problem, setProblem] = useState<Problem | null>(null)
  const [conflict, setConflict] = useState<Conflict | null>(null)
  const underway = useRef<Pending | null>(null)
  const tries = useRef(0)
  const redeliver = useRef<(write: Pending) => Promise<void>>(async () => undefined)
  const box = `outbox:${tag}`

  const settle = useCallback(() => {
    underway.current = null
    tries.current = 0
    kept.drop(box)
    setPending(null)
    setOffline(false)
  }, [box])

  const deliver = useCallback(
    async (write: Pending) => {
      underway.current = write
      setPending(write)
      kept.write(box, write)
      try {
        const body = { ...write.body, key: write.key, version: write.version }
        const job = await dataOf(client.POST(write.path, { params: { path: { tag } }, body } as never) as Promise<{ data?: Job; response: Response }>)
        cache.setQueryData(['job', tag], job)
        void cache.invalidateQueries({ queryKey: ['day'], refetchType: 'none' })
        settle()
      } catch (error) {
        if (error instanceof NoAnswerError) {
          setOffline(true)
          tries.current += 1
        } else if (error instanceof ProblemError && ['signed_out', 'csrf'].includes(error.problem.code)) {
          await cache.invalidateQueries({ queryKey: ['session'] }) // brings a new token, or the sign-in form: the write stays in its box till then
          tries.current += 1
          if (error.problem.code === 'csrf' && tries.current < 3) await redeliver.current(write)
        } else if (error instanceof ProblemError && error.problem.code === 'stale_write') {
          settle()
          await cache.fetchQuery({ ...jobQuery(tag), staleTime: 0 })
          setConflict({ changed: error.problem.params.changed as Conflict['changed'], pending: write })
        } else {
          settle()
          setProblem(error instanceof ProblemError ? error.problem : { status: 0, code: 'unexpected', title: String(error), params: {} })
        }
      }
    },
    [box, cache, settle, tag],
  )

  useEffect(() => {
    redeliver.current = deliver
  }, [deliver])

  const again = useCallback(() => {
    if (underway.current) void deliver(underway.current)
  }, [deliver])

  // what a reload, a crash or a sign-out left in the box goes out first
  useEffect(() => {
    const left = kept.read<Pending>(box)
    if (left && !underway.current) void deliver(left)
  }, [box, deliver])

  useEffect(() => {
    if (!isOffline) return
    const timer = setInterval(again, RETRY_MS[Math.min(tries.current, RETRY_MS.length - 1)])
    window.addEventListener('online', again)
    return () => {
      clearInterval(timer)
      window.removeEventListener('online', again)
    }
  }, [isOffline, again])

  const send: Send = useCallback(
    (path, body, says) => {
      const job = cache.getQueryData<Job>(['job', tag])
      if (underway.current || !job) return // a second tap while the first is on its way is the same tap
      setProblem(null)
      void deliver({ path, body, key: crypto.randomUUID(), version: job.version, says })
    },
    [cache, deliver, tag],
  )

  const resend = useCallback(() => {
    const job = cache.getQueryData<Job>(['job', tag])
    if (!conflict || !job) return
    setConflict(null)
    void deliver({ ...conflict.pending, version: job.version })
  }, [cache, conflict, deliver, tag])

  return {
    send,
    pending,
    isOffline,
    again,
    problem,
    clearProblem: () => setProblem(null),
    conflict,
    resend,
    leaveOut: () => setConflict(null),
  }
}

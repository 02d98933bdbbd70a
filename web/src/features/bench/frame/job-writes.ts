import { queryOptions, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { client } from '@/api/client'
import { dataOf, NoAnswerError, ProblemError, type Problem } from '@/api/problem'
import type { components } from '@/api/schema'
import { useWho } from '@/api/session'
import type { Job } from '@/api/types'
import { boxOf, kept, useKept } from '@/lib/kept'

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

const RETRY_MS = [1_000, 2_000, 4_000, 8_000]

const jobQuery = (tag: string) =>
  queryOptions({ queryKey: ['job', tag], queryFn: () => dataOf(client.GET('/api/jobs/{tag}', { params: { path: { tag } } })) })

export const useJob = (tag: string) => useQuery(jobQuery(tag))

/** What came of sending: done, or why not. */
type Sent = { job: Job } | { waits: string } | { again: true } | Omit<Conflict, 'pending'> | { problem: Problem }

async function sent(tag: string, { ask, key, version }: Pending): Promise<Sent> {
  try {
    return { job: await dataOf(client.POST('/api/jobs/{tag}/lines', { params: { path: { tag } }, body: { key, version, ask } })) }
  } catch (error) {
    if (error instanceof NoAnswerError) return { waits: error.message }
    if (!(error instanceof ProblemError)) return { problem: { status: 0, code: 'unexpected', title: String(error), params: {} } }
    if (error.problem.code === 'signed_out') return { waits: error.message }
    if (error.problem.code === 'csrf') return { again: true }
    if (error.problem.code === 'stale_write') return error.problem.params as unknown as Omit<Conflict, 'pending'>
    return { problem: error.problem }
  }
}

/** Send once more with a new token if the old one has run out. */
async function delivered(tag: string, write: Pending, renewToken: () => Promise<void>): Promise<Exclude<Sent, { again: true }>> {
  const first = await sent(tag, write)
  if (!('again' in first)) return first
  await renewToken()
  const second = await sent(tag, write)
  return 'again' in second ? { waits: 'This page is out of date.' } : second
}

/** What a reload, a crash or an ended session left in this person's box goes out first. */
function useLeftOver(box: string, who: string, underway: { readonly current: Pending | null }, deliver: (write: Pending) => Promise<void>): void {
  useEffect(() => {
    const left = who ? kept.read<Pending>(box) : null
    if (left?.ask && !underway.current) void deliver(left)
  }, [box, deliver, underway, who])
}

/** Try again by the clock, more and more patiently, and at once when the network is back. */
function useRetries(isWaiting: boolean, tries: { readonly current: number }, again: () => void): void {
  useEffect(() => {
    if (!isWaiting) return
    const timer = setInterval(again, RETRY_MS[Math.min(tries.current, RETRY_MS.length - 1)])
    window.addEventListener('online', again)
    return () => {
      clearInterval(timer)
      window.removeEventListener('online', again)
    }
  }, [isWaiting, tries, again])
}

export function useJobWrites(tag: string) {
  const cache = useQueryClient()
  const who = useWho()
  const [pending, setPending] = useState<Pending | null>(null)
  const [waits, setWaits] = useState('')
  const [problem, setProblem] = useState<Problem | null>(null)
  const [conflict, setConflict, dropConflict] = useKept<Conflict | null>(boxOf('conflict', who, tag), null)
  const underway = useRef<Pending | null>(null)
  const tries = useRef(0)
  const box = boxOf('outbox', who, tag)

  const settle = useCallback(() => {
    underway.current = null
    tries.current = 0
    kept.drop(box)
    setPending(null)
    setWaits('')
  }, [box])

  const deliver = useCallback(
    async (write: Pending) => {
      underway.current = write
      setPending(write)
      kept.write(box, write)
      const came = await delivered(tag, write, () => cache.invalidateQueries({ queryKey: ['session'] }))
      if ('waits' in came) {
        tries.current += 1
        setWaits(came.waits)
        return
      }
      settle()
      if ('job' in came) {
        await cache.cancelQueries({ queryKey: ['job', tag] }) // a read that began before the write would put the former job back
        cache.setQueryData(['job', tag], came.job)
        void cache.invalidateQueries({ queryKey: ['day'], refetchType: 'none' })
      } else if ('changed' in came) {
        setConflict({ changed: came.changed, version: came.version, pending: write })
        await cache.fetchQuery({ ...jobQuery(tag), staleTime: 0 })
      } else setProblem(came.problem)
    },
    [box, cache, setConflict, settle, tag],
  )

  const again = useCallback(() => {
    if (underway.current) void deliver(underway.current)
  }, [deliver])

  useLeftOver(box, who, underway, deliver)
  useRetries(waits !== '', tries, again)

  const send: Send = useCallback(
    (ask, says) => {
      const job = cache.getQueryData<Job>(['job', tag])
      if (underway.current || !job) return // a second tap while the first is on its way is the same tap
      setProblem(null)
      void deliver({ ask, key: crypto.randomUUID(), version: job.version, says })
    },
    [cache, deliver, tag],
  )

  const resend = useCallback(() => {
    dropConflict()
    if (conflict && !underway.current) void deliver({ ...conflict.pending, key: crypto.randomUUID(), version: conflict.version })
  }, [conflict, deliver, dropConflict])

  return { send, pending, waits, again, giveUp: settle, problem, clearProblem: () => setProblem(null), conflict, resend, leaveOut: dropConflict }
}

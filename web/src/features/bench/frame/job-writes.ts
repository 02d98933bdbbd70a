import { queryOptions, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { client } from '@/api/client'
import { dataOf, NoAnswerError, ProblemError, type Problem } from '@/api/problem'
import { useWho } from '@/api/session'
import type { Job } from '@/api/types'
import { boxOf, kept, useKept } from '@/lib/kept'
import type { Conflict, Pending, Send } from './asks'
import { useQueue } from './queue'

const RETRY_MS = [1_000, 2_000, 4_000, 8_000]

const jobQuery = (tag: string) =>
  queryOptions({ queryKey: ['job', tag], queryFn: () => dataOf(client.GET('/api/jobs/{tag}', { params: { path: { tag } } })) })

export const useJob = (tag: string) => useQuery(jobQuery(tag))

/** What came of sending: done, or why not. */
type Refused = Omit<Conflict, 'pending'> | { problem: Problem }
type Sent = { job: Job } | { waits: string } | { again: true } | Refused

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

/** What was given after something that was not written goes with it: it is said, so that it can be given again. */
const withRest = (says: string, left: readonly string[]): string => (left.length === 0 ? says : `${says} Not sent after it: ${left.join('; ')}.`)

/** One write on its way at a time, kept in this person's box until it is answered; `onWritten` hears when it was. */
function useDelivery(tag: string, box: string, refuse: (came: Refused, write: Pending) => void, onWritten: () => void) {
  const cache = useQueryClient()
  const [pending, setPending] = useState<Pending | null>(null)
  const [waits, setWaits] = useState('')
  const underway = useRef<Pending | null>(null)
  const tries = useRef(0)

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
      if (!('job' in came)) {
        settle()
        return refuse(came, write)
      }
      await cache.cancelQueries({ queryKey: ['job', tag] }) // a read that began before the write would put the former job back
      cache.setQueryData(['job', tag], came.job)
      settle() // only now: the next answer goes out on this version
      void cache.invalidateQueries({ queryKey: ['day'], refetchType: 'none' })
      onWritten()
    },
    [box, cache, onWritten, refuse, settle, tag],
  )

  const again = useCallback(() => {
    if (underway.current) void deliver(underway.current)
  }, [deliver])

  useRetries(waits !== '', tries, again)
  return { pending, waits, underway, settle, deliver, again }
}

export function useJobWrites(tag: string) {
  const cache = useQueryClient()
  const who = useWho()
  const queue = useQueue(boxOf('queue', who, tag))
  const [problem, setProblem] = useState<Problem | null>(null)
  const [conflict, setConflict, dropConflict] = useKept<Conflict | null>(boxOf('conflict', who, tag), null)
  const box = boxOf('outbox', who, tag)
  const onward = useRef<() => void>(() => undefined)

  const refuse = useCallback(
    (came: Refused, write: Pending) => {
      const left = queue.drop()
      if ('problem' in came) return setProblem({ ...came.problem, title: withRest(came.problem.title, left) })
      setConflict({ changed: came.changed, version: came.version, pending: { ...write, says: withRest(write.says, left) } })
      void cache.fetchQuery({ ...jobQuery(tag), staleTime: 0 })
    },
    [cache, queue, setConflict, tag],
  )
  const onWritten = useCallback(() => onward.current(), [])
  const { pending, waits, underway, settle, deliver, again } = useDelivery(tag, box, refuse, onWritten)
  useLeftOver(box, who, underway, deliver)

  const send: Send = useCallback(
    (ask, says) => {
      if (underway.current) return queue.add(ask, says, underway.current) // a second tap while the first is on its way is the same tap
      const job = cache.getQueryData<Job>(['job', tag])
      setProblem(null)
      if (job) void deliver({ ask, key: crypto.randomUUID(), version: job.version, says })
    },
    [cache, deliver, queue, tag, underway],
  )
  useEffect(() => {
    onward.current = () => {
      const next = queue.next()
      if (next) send(next.ask, next.says)
    }
  }, [queue, send])

  const isLoaded = useQuery({ ...jobQuery(tag), enabled: false }).data !== undefined
  useEffect(() => {
    if (isLoaded && kept.read(box) === null && !underway.current) onward.current() // what waited behind a write that had arrived before a reload
  }, [box, isLoaded, underway])
  const giveUp = () => {
    settle()
    onward.current()
  }

  const resend = useCallback(() => {
    dropConflict()
    if (conflict && !underway.current) void deliver({ ...conflict.pending, key: crypto.randomUUID(), version: conflict.version })
  }, [conflict, deliver, dropConflict, underway])

  const onTheWay = useMemo(() => [...(pending ? [pending] : []), ...queue.shown], [pending, queue.shown])
  return { send, pending, onTheWay, waits, again, giveUp, problem, clearProblem: () => setProblem(null), conflict, resend, leaveOut: dropConflict }
}

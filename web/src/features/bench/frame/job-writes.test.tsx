import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { beforeEach, expect, test, vi } from 'vitest'
import { kept } from '@/lib/kept'
import { useJobWrites } from './job-writes'

const TAG = 'K-0107'
const BOX = `spindle:outbox:bram:${TAG}`
const sent: { key: string; version: number; ask: object }[] = []
let answers: (Response | Error)[] = []

const json = (status: number, body: unknown) => new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
const written = (version: number) => json(200, { tag: TAG, version })
const stale = () => json(409, { status: 409, code: 'stale_write', title: 'stale', params: { version: 8, changed: [{ by: 'Nia', at: '2026-03-01T09:00:00Z', text: 'Owner rang' }] } })

beforeEach(() => {
  sent.length = 0
  vi.stubGlobal('fetch', async (request: Request) => {
    if (request.method === 'GET') return json(200, { tag: TAG, version: 8 })
    sent.push(await request.json())
    const answer = answers.shift() ?? written(9)
    if (answer instanceof Error) throw answer
    return answer
  })
})

function bench(who = 'bram') {
  const cache = new QueryClient()
  cache.setQueryData(['job', TAG], { tag: TAG, version: 7 })
  cache.setQueryData(['session'], { user: { username: who, may: [] } })
  const wrapper = ({ children }: { children: ReactNode }) => <QueryClientProvider client={cache}>{children}</QueryClientProvider>
  const hook = renderHook(() => useJobWrites(TAG), { wrapper })
  const remark = () => act(() => hook.result.current.send({ do: 'remark', text: 'hm' }, 'hm'))
  return { ...hook, cache, remark }
}

test('a write carries its key and the version that was seen, and brings the job as it then stands', async () => {
  answers = [written(8)]
  const { result, cache, remark } = bench()
  remark()
  await waitFor(() => expect(result.current.pending).toBeNull())
  expect(sent).toMatchObject([{ version: 7, ask: { do: 'remark', text: 'hm' } }])
  expect(cache.getQueryData(['job', TAG])).toMatchObject({ version: 8 })
  expect(localStorage.length).toBe(0)
})

test('a second tap while the first is on its way is the same tap', async () => {
  answers = [written(8)]
  const { result, remark } = bench()
  remark()
  remark()
  await waitFor(() => expect(result.current.pending).toBeNull())
  expect(sent).toHaveLength(1)
})

const answer = (question: string) => ({ do: 'answer' as const, question, outcome: 'yes', source: 'bench' as const })

test('answers to other questions wait in their order, each on the version that the one before it made', async () => {
  answers = [written(8), written(9), written(10)]
  const { result } = bench()
  act(() => {
    for (const q of ['power', 'power', 'spins', 'sled', 'spins']) result.current.send(answer(q), q)
  })
  expect(result.current.onTheWay.map((w) => w.says)).toEqual(['power', 'spins', 'sled'])
  await waitFor(() => expect(result.current.onTheWay).toEqual([]))
  expect(sent).toMatchObject([{ version: 7, ask: answer('power') }, { version: 8, ask: answer('spins') }, { version: 9, ask: answer('sled') }])
})

test('what waits survives a reload, goes out in its order, and counts as not sent', async () => {
  answers = [new TypeError('down')]
  const first = bench()
  act(() => ['power', 'spins', 'sled'].forEach((q) => first.result.current.send(answer(q), q)))
  await waitFor(() => expect(first.result.current.waits).not.toBe(''))
  expect(kept.unsent('bram')).toEqual(['power', 'spins', 'sled'])
  first.unmount()
  answers = [written(8), written(9), written(10)]
  const { result } = bench()
  await waitFor(() => expect(result.current.onTheWay).toEqual([]))
  expect(sent.slice(1).map((s) => s.ask)).toMatchObject([answer('power'), answer('spins'), answer('sled')])
  expect(localStorage.length).toBe(0)
})

test('what waited behind a write that had arrived goes out after a reload; left out, the next one goes on', async () => {
  localStorage.setItem(`spindle:queue:bram:${TAG}`, JSON.stringify([{ ask: answer('spins'), says: 'spins' }, { ask: answer('sled'), says: 'sled' }]))
  answers = [new TypeError('down'), written(9)]
  const { result } = bench()
  await waitFor(() => expect(result.current.waits).not.toBe(''))
  act(() => result.current.giveUp())
  await waitFor(() => expect(result.current.onTheWay).toEqual([]))
  expect(sent.map((s) => s.ask)).toMatchObject([answer('spins'), answer('sled')])
})

test('what waited behind a refusal is not sent, and is said', async () => {
  answers = [json(409, { status: 409, code: 'not_now', title: 'Mains out.', params: {} })]
  const { result } = bench()
  act(() => {
    for (const q of ['power', 'spins']) result.current.send(answer(q), `${q}: yes`)
  })
  await waitFor(() => expect(result.current.problem?.title).toBe('Mains out. Not sent after it: spins: yes.'))
  expect(sent).toHaveLength(1)
})

test('without a connection the write is kept, and sent again with the same key', async () => {
  answers = [new TypeError('down'), new TypeError('down'), written(8)]
  const { result, remark } = bench()
  remark()
  await waitFor(() => expect(result.current.waits).not.toBe(''))
  expect(localStorage.length).toBe(1)
  act(() => result.current.again())
  await waitFor(() => expect(sent.length).toBe(2))
  act(() => result.current.again())
  await waitFor(() => expect(result.current.pending).toBeNull())
  expect(new Set(sent.map((s) => s.key)).size).toBe(1)
})

test('what a crash left in the box goes out first when the screen comes back', async () => {
  localStorage.setItem(BOX, JSON.stringify({ ask: { do: 'remark', text: 'left' }, key: 'left-over-1', version: 6, says: 'left' }))
  const { result } = bench()
  await waitFor(() => expect(sent).toMatchObject([{ key: 'left-over-1', version: 6, ask: { text: 'left' } }]))
  await waitFor(() => expect(result.current.pending).toBeNull())
})

test('a stale write shows what changed, and goes out anew only when told', async () => {
  answers = [stale(), written(9)]
  const { result, remark } = bench()
  remark()
  await waitFor(() => expect(result.current.conflict?.changed[0]?.text).toBe('Owner rang'))
  expect(sent).toHaveLength(1)
  act(() => result.current.resend())
  await waitFor(() => expect(result.current.pending).toBeNull())
  expect(sent[1]).toMatchObject({ version: 8, ask: { text: 'hm' } })
})

test('a refusal is told in the server’s words and leaves nothing behind', async () => {
  answers = [json(409, { status: 409, code: 'not_now', title: 'This needs the mains out.', params: {} })]
  const { result, remark } = bench()
  remark()
  await waitFor(() => expect(result.current.problem?.title).toBe('This needs the mains out.'))
  expect(localStorage.length).toBe(0)
})

test('signed out in the middle: the write waits in its box', async () => {
  answers = [json(401, { status: 401, code: 'signed_out', title: 'Sign in', params: {} })]
  const { result, remark } = bench()
  remark()
  await waitFor(() => expect(sent).toHaveLength(1))
  await waitFor(() => expect(localStorage.getItem(BOX)).toContain('hm'))
  expect(result.current.problem).toBeNull()
})

test.each([[500, 'It may have been written all the same'], [503, 'The database is away']])('after a %i the write stays in its box with its key, and says what is true', async (status, says) => {
  answers = [json(status, { status, code: 'x', title: says, params: {} }), written(8)]
  const { result, remark } = bench()
  remark()
  await waitFor(() => expect(result.current.waits).toBe(says))
  act(() => result.current.again())
  await waitFor(() => expect(result.current.pending).toBeNull())
  expect(new Set(sent.map((s) => s.key)).size).toBe(1)
})

test('a box is its own person’s: nobody else sends it', async () => {
  localStorage.setItem(BOX, JSON.stringify({ ask: { do: 'remark', text: 'left' }, key: 'left-over-1', version: 6, says: 'left' }))
  const { result } = bench('nia')
  await waitFor(() => expect(result.current.pending).toBeNull())
  expect(sent).toHaveLength(0)
})

test('a conflict is still there after a reload', async () => {
  answers = [stale()]
  const first = bench()
  first.remark()
  await waitFor(() => expect(first.result.current.conflict).not.toBeNull())
  first.unmount()
  expect(bench().result.current.conflict?.pending.says).toBe('hm')
})

test('a read that began before the write never puts the former job back', async () => {
  answers = [written(8)]
  const { result, cache, remark } = bench()
  let late: (job: object) => void = () => undefined
  void cache.fetchQuery({ queryKey: ['job', TAG], queryFn: () => new Promise<object>((done) => (late = done)) }).catch(() => undefined)
  remark()
  await waitFor(() => expect(result.current.pending).toBeNull())
  await act(async () => late({ tag: TAG, version: 7 }))
  expect(cache.getQueryData(['job', TAG])).toMatchObject({ version: 8 })
})

import { cleanup, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, expect, test, vi } from 'vitest'
import { waitingOf } from '@/api/waiting-files'
import { Refusal, serve } from '@/lib/tests/server'
import { TakePhoto } from '../photos/take-photo'
import { onBench } from '../tests/kit'
import { WaitingFiles } from './waiting-files'

const { kept } = vi.hoisted(() => ({ kept: new Map<string, unknown>() }))
vi.mock('idb-keyval', () => ({
  createStore: () => kept,
  set: async (key: string, value: unknown) => void kept.set(key, value),
  del: async (key: string) => void kept.delete(key),
  entries: async () => [...kept],
}))
beforeEach(() => kept.clear())

const bench = () => onBench(<><WaitingFiles /><TakePhoto of="drive:Plug" moment="before" label="Photo before" /></>) // prettier-ignore
const take = () => userEvent.upload(screen.getByLabelText('Photo before, from a file'), new File(['x'], 'a.jpg', { type: 'image/jpeg' }))
const arrives = { 'POST /api/photos': { hash: 'ab', width: 4, height: 3 } }

test('what did not arrive waits over a new page, and goes from there with what follows it', async () => {
  serve({})
  bench()
  await take()
  await screen.findByText('The photo is not kept yet')
  cleanup() // the session ended, the page was loaded anew
  serve(arrives)
  const send = bench()
  await userEvent.click(await screen.findByRole('button', { name: 'Send it again' }))
  await waitFor(() => expect(send).toHaveBeenCalledWith({ do: 'photograph', hash: 'ab', of: 'drive:Plug', moment: 'before', says: '', for_owner: false }, 'Photo before'))
  await waitFor(() => expect(screen.queryByText('Not sent yet')).toBeNull())
  expect(kept.size).toBe(0)
})

test('what waits can be dropped', async () => {
  serve({})
  bench()
  await take()
  await userEvent.click(await screen.findByRole('button', { name: 'Drop it' }))
  await waitFor(() => expect(kept.size).toBe(0))
})

test('it waits for whoever took it, at its own job, and not for ever', async () => {
  serve({})
  bench()
  await take()
  await waitFor(async () => expect(await waitingOf('bram', 'K-0107')).toHaveLength(1))
  expect(await waitingOf('nia', 'K-0107')).toEqual([])
  expect(await waitingOf('bram', 'K-0001')).toEqual([])
  expect(await waitingOf('bram', 'K-0107', Date.now() + 15 * 86_400_000)).toEqual([])
  expect(kept.size).toBe(0)
})

test('what the server will not have waits for nothing', async () => {
  serve({ 'POST /api/photos': new Refusal('This is no picture.', {}, 415) })
  bench()
  await take()
  await screen.findByText('This is no picture.')
  expect(kept.size).toBe(0)
})

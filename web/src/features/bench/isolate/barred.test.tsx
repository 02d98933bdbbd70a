import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, expect, test, vi } from 'vitest'
import { client } from '@/api/client'
import { jobOf, onBench } from '../tests/kit'
import { Barred } from './barred'

const may = vi.hoisted(() => ({ say: true }))
vi.mock('@/api/session', async (real) => ({ ...(await real<object>()), useMay: () => may.say }))

const none = jobOf()
const held = jobOf({ diagnosis: { ...none.diagnosis, barred: [{ why: 'Power is kept off: wet cleaner.', titles: ['Does it spin?', 'Does it eject?'] }] } })
const has = (is_there: boolean) => ({ data: { instruments: [{ id: 'scope' as const, name: 'Oscilloscope', is_there }] }, response: new Response() })

beforeEach(() => {
  may.say = true
  vi.restoreAllMocks()
})

test('each reason stands once, with what it bars', () => {
  onBench(<Barred />, held)
  const reason = within(screen.getByRole('region', { name: 'Not possible now' }))
  expect(reason.getByText(/Power is kept off/)).toHaveTextContent('2 steps.')
  expect(reason.getByText('Does it eject?')).toBeInTheDocument()
})

test('nothing barred is said as such', () => {
  onBench(<Barred />, none)
  expect(screen.getByRole('heading', { name: 'Everything on the list can be done now' })).toBeInTheDocument()
})

test('a manager says that an instrument is here, once', async () => {
  vi.spyOn(client, 'GET').mockResolvedValue(has(false) as never)
  const post = vi.spyOn(client, 'POST').mockResolvedValue(has(true) as never)
  onBench(<Barred />, none)
  await userEvent.click(screen.getByRole('button', { name: 'What this shop has' }))
  await userEvent.click(await screen.findByRole('checkbox', { name: /Oscilloscope/ }))
  await waitFor(() => expect(post.mock.calls[0]?.[1]).toMatchObject({ body: { instrument: 'scope', is_there: true } }))
})

test('whoever may not change it sees what is here', async () => {
  may.say = false
  vi.spyOn(client, 'GET').mockResolvedValue(has(true) as never)
  onBench(<Barred />, none)
  await userEvent.click(screen.getByRole('button', { name: 'What this shop has' }))
  expect(await screen.findByRole('checkbox', { name: /Oscilloscope/ })).toBeDisabled()
})

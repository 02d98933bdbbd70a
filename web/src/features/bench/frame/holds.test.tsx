import { QueryClient } from '@tanstack/react-query'
import { act, cleanup, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { jobOf, onBench } from '../tests/kit'
import { Holds } from './holds'

const soldered = { code: 'soldered', text: 'The board was soldered.', clears: 'Short test done: no short', until: null, bars: 'power' as const }
const wetUntil = (ms: number) => ({ code: 'wet', text: 'Cleaner has to dry.', clears: '', until: new Date(ms).toISOString(), bars: 'power' as const })

test('a hold with a test of its own is cleared by saying that it was done', async () => {
  const send = onBench(<Holds />, jobOf({ hazards: [soldered] }))
  expect(screen.getByRole('alert')).toHaveTextContent('Mains stays out')
  await userEvent.click(screen.getByRole('button', { name: 'Short test done: no short' }))
  expect(send.mock.calls[0]?.[0]).toEqual({ do: 'clear_hold', code: 'soldered' })
})

test('lifting one by hand takes a name and a reason', async () => {
  const send = onBench(<Holds />, jobOf({ hazards: [soldered] }))
  await userEvent.keyboard('a')
  expect(screen.getByLabelText('Who lifts it')).toHaveValue('Bram')
  expect(screen.getByRole('button', { name: 'Lift it' })).toBeDisabled()
  await userEvent.type(screen.getByLabelText('Why it is safe'), 'measured twice')
  await userEvent.click(screen.getByRole('button', { name: 'Lift it' }))
  await waitFor(() => expect(send.mock.calls[0]?.[0]).toEqual({ do: 'lift_hold', code: 'soldered', by_name: 'Bram', why: 'measured twice' }))
})

test('what dries says when, and goes by itself when its minute has come', async () => {
  vi.useFakeTimers({ now: Date.parse('2026-03-01T10:00:00Z') })
  const fetched = vi.spyOn(QueryClient.prototype, 'invalidateQueries')
  onBench(<Holds />, jobOf({ hazards: [wetUntil(Date.parse('2026-03-01T10:03:00Z'))] }))
  expect(screen.getByRole('alert')).toHaveTextContent('Dry at')
  expect(fetched).not.toHaveBeenCalled()
  await act(() => vi.advanceTimersByTimeAsync(181_000))
  expect(screen.queryByRole('alert')).toBeNull()
  expect(fetched).toHaveBeenCalledExactlyOnceWith({ queryKey: ['job', 'K-0107'] }) // what it barred is possible now
  vi.useRealTimers()
})

test('the measured charge alone has a key, and a unit that leaves has no strip of hands', async () => {
  const charge = { code: 'charge', text: 'Charge remains.', clears: 'Measured: under 5 V', until: null, bars: 'opening' as const }
  const send = onBench(<Holds />, jobOf({ hazards: [soldered], waits: [charge] }))
  await userEvent.keyboard('e')
  expect(send.mock.calls.map(([ask]) => ask.code)).toEqual(['charge'])
  cleanup()
  onBench(<Holds />, jobOf({ stage: 'hand_back', waits: [charge] }))
  expect(screen.queryByRole('alert')).toBeNull()
})

test('charge keeps the hands out, and measuring lets them in', async () => {
  const charge = { code: 'charge', text: 'Charge remains.', clears: 'Measured: under 5 V', until: new Date(Date.now() + 180_000).toISOString(), bars: 'opening' as const }
  const send = onBench(<Holds />, jobOf({ waits: [charge] }))
  expect(screen.getByRole('alert')).toHaveTextContent(/Hands stay out.*Over at/)
  await userEvent.click(screen.getByRole('button', { name: 'Measured: under 5 V' }))
  expect(send.mock.calls[0]?.[0]).toEqual({ do: 'clear_hold', code: 'charge' })
})

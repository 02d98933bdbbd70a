import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, expect, test, vi } from 'vitest'
import type { KeyReading } from '@/api/types'
import { Identify } from './identify'

const asked: Record<string, string>[] = []
const reading: KeyReading = {
  features: [
    { id: 'loader', ask: 'How does a disc go in?', how: 'From the outside.', where: 'outside', values: [{ id: 'tray', label: 'A tray' }, { id: 'slot', label: 'A slit' }] },
    { id: 'rails', ask: 'What are the rails made of?', how: 'Look.', where: 'drive_open', values: [{ id: 'metal', label: 'Metal' }] },
  ],
  candidates: [{ sheet_id: 7, name: 'M C, revision 1', variant: 'V-1', p: 0.8, against: ['How does a disc go in?'] }],
  next_feature: 'loader',
  is_settled: false,
  differ: ['What are the rails made of?'],
}

beforeEach(() => {
  asked.length = 0
  vi.stubGlobal('fetch', async (request: Request) => {
    const { answers } = (await request.json()) as { answers: Record<string, string> }
    asked.push(answers)
    return new Response(JSON.stringify({ ...reading, next_feature: 'loader' in answers ? '' : 'loader' }), { headers: { 'Content-Type': 'application/json' } })
  })
})

function show(onPick?: (id: number) => void) {
  const cache = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  render(
    <QueryClientProvider client={cache}>
      <Identify {...(onPick ? { onPick } : {})} />
    </QueryClientProvider>,
  )
}

test.each([
  ['2', 'slot'],
  ['0', 'cant_see'],
])('key %s answers %s, and U takes it back', async (key, value) => {
  show()
  await screen.findByRole('heading', { name: 'How does a disc go in?' })
  await userEvent.keyboard(key)
  expect(await screen.findByText(/The eye can tell no more/)).toBeInTheDocument()
  expect(asked.at(-1)).toEqual({ loader: value })
  await userEvent.keyboard('u')
  expect(await screen.findByRole('heading', { name: 'How does a disc go in?' })).toBeInTheDocument()
})

test('another look can be answered first', async () => {
  show()
  await userEvent.click(await screen.findByText('Something else can be seen'))
  await userEvent.click(screen.getByRole('button', { name: 'What are the rails made of?' }))
  expect(screen.getByText(/Drive open, mains out, strap on/)).toBeInTheDocument()
})

test('a candidate says what speaks against it, and can be taken', async () => {
  const onPick = vi.fn()
  show(onPick)
  await userEvent.click(await screen.findByRole('button', { name: 'Take V-1' }))
  expect(onPick).toHaveBeenCalledWith(7, expect.anything())
  expect(screen.getByText('speaks against it: How does a disc go in?')).toBeInTheDocument()
})

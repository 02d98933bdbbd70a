import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { expect, test, vi } from 'vitest'
import type { DayRow } from '@/api/types'
import { DayList } from './day-list'

const row = (more: Partial<DayRow>): DayRow => ({
  tag: 'K-0101', console: 'M C', variant: 'V', owner_name: 'Wenna', hands: '', complaint: 'Clicks.', stage: 'isolate', stage_name: 'Isolate', promised_on: null, waits_for: '', power: 'out', acts: 'bench', wants: '', held_until: null, taken_in_at: '2026-03-01T09:00:00Z', is_return: false, ...more,
}) // prettier-ignore

function day(answer: () => Response | Promise<Response>, may: string[] = ['take_in']) {
  vi.stubGlobal('fetch', async () => answer())
  const cache = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } })
  cache.setQueryData(['session'], { user: { name: 'Nia', role: 'counter', may }, csrf_token: '', shop: '' })
  render(
    <MemoryRouter>
      <QueryClientProvider client={cache}>
        <DayList />
      </QueryClientProvider>
    </MemoryRouter>,
  )
}
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10)

test.each([
  [row({ waits_for: 'A trial before the screws go in.' }), 'A trial before the screws go in.'],
  [row({}), 'Nothing: it can go on'],
  [row({ power: 'live' }), 'Mains live'],
  [row({ promised_on: yesterday }), 'late'],
  [row({}), 'no promise yet'],
])('a unit says where it stands: %#', async (unit, text) => {
  day(() => json([unit]))
  expect(await screen.findByRole('link', { name: /K-0101/ })).toHaveTextContent(text)
})

test('units stand by who must act, and the counter sees its own first', async () => {
  day(() => json([row({}), row({ tag: 'K-0102', acts: 'counter' }), row({ tag: 'K-0103', acts: 'part', wants: 'bare pickup' })]))
  await screen.findByRole('region', { name: 'The bench' })
  expect(screen.getAllByRole('heading', { level: 2 }).map((h) => h.textContent)).toEqual([expect.stringMatching(/^The counter 1/), expect.stringMatching(/^The bench 1/), expect.stringMatching(/^A part 1/)])
  expect(screen.getByRole('link', { name: /K-0103/ })).toHaveTextContent('A bare pickup: none on the shelf')
})

test('words leave only the rows that hold them all', async () => {
  day(() => json([row({ hands: 'Bram Ake' }), row({ tag: 'K-0102', owner_name: 'Odile' })]))
  await userEvent.type(await screen.findByLabelText('Only those with'), 'odile click')
  expect(screen.getAllByRole('link', { name: /^K-/ }).map((l) => l.textContent.slice(0, 6))).toEqual(['K-0102'])
  await userEvent.clear(screen.getByLabelText('Only those with'))
  await userEvent.type(screen.getByLabelText('Only those with'), 'bram')
  expect(screen.getByRole('link', { name: /^K-/ })).toHaveTextContent('last: Bram Ake')
  await userEvent.type(screen.getByLabelText('Only those with'), 'x')
  expect(screen.getByText('None in the house')).toBeInTheDocument()
})

test('a long group is drawn in part, and whole on demand', async () => {
  day(() => json(Array.from({ length: 43 }, (_, n) => row({ tag: `K-${1000 + n}`, stage: 'taken_in' }))))
  await screen.findByText('K-1000')
  expect(screen.getAllByText(/^K-1/)).toHaveLength(40)
  await userEvent.click(screen.getByRole('button', { name: 'Show the other 3' }))
  expect(screen.getAllByText(/^K-1/)).toHaveLength(43)
})

test('the head counts the units and what is due', async () => {
  day(() => json([row({}), row({ tag: 'K-0102', promised_on: yesterday })]))
  expect(await screen.findByText('2 units in the house, 1 due today or late')).toBeInTheDocument()
})

test('an empty house says so', async () => {
  day(() => json([]))
  expect(await screen.findByText('No unit in the house')).toBeInTheDocument()
})

test('while it is fetched, it says that', () => {
  day(() => new Promise<Response>(() => undefined))
  expect(screen.getByText('Fetching the day…')).toBeInTheDocument()
})

test('a lost connection is told, not shown as an empty day', async () => {
  day(() => Promise.reject(new TypeError('down')))
  expect(await screen.findByRole('alert')).toHaveTextContent('Could not fetch the day')
  expect(screen.queryByText('No unit in the house')).toBeNull()
})

test('who may not take in is not offered it', async () => {
  day(() => json([]), [])
  await screen.findByText('No unit in the house')
  expect(screen.queryByRole('link', { name: 'Take a unit in' })).toBeNull()
})

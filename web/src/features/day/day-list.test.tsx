import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { expect, test, vi } from 'vitest'
import type { Acts, DayRow, House } from '@/api/types'
import { DayList } from './day-list'

const row = (more: Partial<DayRow>): DayRow => ({
  tag: 'K-0101', console: 'M C', variant: 'V', owner_name: 'Wenna', hands: '', complaint: 'Clicks.', stage: 'isolate', stage_name: 'Isolate', promised_on: null, waits_for: '', power: 'out', wants: '', held_until: null, taken_in_at: '2026-03-01T09:00:00Z', is_return: false, ...more,
}) // prettier-ignore

const house = (groups: Partial<Record<Acts, DayRow[]>>, more: Partial<House> = {}): Response => {
  const told = Object.entries(groups).map(([acts, rows]) => ({ acts: acts as Acts, count: rows.length, rows }))
  return json({ units: told.reduce((n, g) => n + g.count, 0), due: 0, groups: told, ...more } satisfies House)
}

function day(answer: (at: URL) => Response | Promise<Response>, may: string[] = ['take_in']) {
  vi.stubGlobal('fetch', async (request: Request) => answer(new URL(request.url)))
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
  day(() => house({ bench: [unit] }))
  expect(await screen.findByRole('link', { name: /K-0101/ })).toHaveTextContent(text)
})

test('units stand by who must act, and the counter sees its own first', async () => {
  day(() => house({ part: [row({ tag: 'K-0103', wants: 'bare pickup' })], bench: [row({})], counter: [row({ tag: 'K-0102' })] }))
  await screen.findByRole('region', { name: 'The bench' })
  expect(screen.getAllByRole('heading', { level: 2 }).map((h) => h.textContent)).toEqual([expect.stringMatching(/^The counter 1/), expect.stringMatching(/^The bench 1/), expect.stringMatching(/^A part 1/)])
  expect(screen.getByRole('link', { name: /K-0103/ })).toHaveTextContent('A bare pickup: none on the shelf')
})

test('words are asked of the whole house, and a house that holds none of them keeps its count', async () => {
  const asked: string[] = []
  day((at) => {
    const words = at.searchParams.get('words') ?? ''
    asked.push(words)
    return words === '' ? house({ bench: [row({ hands: 'Bram Ake' }), row({ tag: 'K-0102' })] }) : house(words === 'odile' ? { bench: [row({ tag: 'K-0102' })] } : {}, { units: 2 })
  })
  await userEvent.type(await screen.findByLabelText('Only those with'), ' odile ')
  await waitFor(() => expect(screen.getAllByRole('link', { name: /^K-/ }).map((l) => l.textContent.slice(0, 6))).toEqual(['K-0102']))
  await userEvent.type(screen.getByLabelText('Only those with'), 'x')
  expect(await screen.findByText('None in the house')).toBeInTheDocument()
  expect(screen.getByText('2 units in the house, none due today or late')).toBeInTheDocument()
  expect(asked).toEqual(['', 'odile', 'odile x'])
})

test('a long group is there in part, and whole on demand', async () => {
  const rows = Array.from({ length: 43 }, (_, n) => row({ tag: `K-${1000 + n}`, stage: 'taken_in' }))
  day((at) => json({ units: 43, due: 0, groups: [{ acts: 'bench', count: 43, rows: at.searchParams.getAll('whole').includes('bench') ? rows : rows.slice(0, 25) }] }))
  await screen.findByText('K-1000')
  await userEvent.click(screen.getByRole('button', { name: 'Show the other 18' }))
  await waitFor(() => expect(screen.getAllByText(/^K-1/)).toHaveLength(43))
  expect(screen.queryByRole('button', { name: /Show the other/ })).toBeNull()
})

test('the head counts the units and what is due, and a unit says who had it last', async () => {
  day(() => house({ bench: [row({ hands: 'Bram Ake' })] }, { units: 2, due: 1 }))
  expect(await screen.findByText('2 units in the house, 1 due today or late')).toBeInTheDocument()
  expect(screen.getByRole('link', { name: /^K-/ })).toHaveTextContent('last: Bram Ake')
})

test('words that cannot be asked are not lost with the connection', async () => {
  day((at) => (at.searchParams.get('words') ? Promise.reject(new TypeError('down')) : house({ bench: [row({})] })))
  await userEvent.type(await screen.findByLabelText('Only those with'), 'odile')
  expect(await screen.findByRole('alert')).toHaveTextContent('Could not fetch the day')
  expect(screen.getByLabelText('Only those with')).toHaveValue('odile')
})

test('an empty house says so', async () => {
  day(() => house({}))
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
  day(() => house({}), [])
  await screen.findByText('No unit in the house')
  expect(screen.queryByRole('link', { name: 'Take a unit in' })).toBeNull()
})

import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { serve, showAt } from '@/lib/tests/server'
import { ClosedList } from './closed-list'

const past = (n: number) => ({ tag: `K-${n}`, console: 'M C', variant: 'V', sheet_id: 1, owner_name: 'Wenna', owner_contact: '', complaint: 'Clicks.', taken_in_at: '2026-01-01T09:00:00Z', closed_at: `2026-01-02T09:00:${String(n % 60).padStart(2, '0')}Z`, outcome: 'Repaired', guarantee_until: '2026-04-01', is_covered: false, is_void: false, returns: '' })

test('closed jobs say how they came out and what of their guarantee is left, and older ones come by a press', async () => {
  const page = vi.fn((sent: { path: string }) => (sent && page.mock.calls.length === 1 ? Array.from({ length: 50 }, (_, n) => past(100 + n)) : [past(200)]))
  serve({ 'GET /api/closed': page })
  showAt('/day/closed', '/day/closed', <ClosedList />)
  expect((await screen.findAllByText('guarantee ended Wed 1 Apr')).length).toBe(50)
  await userEvent.click(screen.getByRole('button', { name: 'Older ones' }))
  expect(await screen.findByRole('link', { name: 'K-200' })).toHaveAttribute('href', '/bench/K-200')
  expect(screen.queryByRole('button', { name: 'Older ones' })).toBeNull()
  expect(screen.getAllByRole('link', { name: 'It came back' })[0]).toHaveAttribute('href', '/take-in?returns=K-100')
})

test.each([
  [[], 'No job was closed yet.'],
  [undefined, 'Could not fetch the closed jobs'],
])('none, and none that can be fetched, are said: %#', async (answer, says) => {
  serve(answer ? { 'GET /api/closed': answer } : {})
  showAt('/day/closed', '/day/closed', <ClosedList />)
  expect(await screen.findByText(says)).toBeInTheDocument()
})

import { screen, within } from '@testing-library/react'
import { expect, test } from 'vitest'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { AdviceScreen } from './advice'
import { MonthsScreen } from './months'
import type { Advice, Months, Reliability } from './record-queries'

const reliable = (more: Partial<Reliability> = {}): Reliability => ({ n: 60, is_enough: true, error: 0.04, log_loss: 0.41, base_log_loss: 0.52, groups: [{ said: 0.75, n: 48, came: 36, low: 0.61, high: 0.85 }, { said: 0.35, n: 12, came: 4, low: 0.14, high: 0.61 }], ...more }) // prettier-ignore
const advice = (more: Partial<Advice> = {}): Advice => ({ jobs: 55, parts_for_nothing: 0.31, every: reliable(), followed: reliable({ n: 40 }), chosen: reliable({ n: 20 }), ...more })
const month = { first: '2026-11-01', taken_in: 31, handed_back: 28, late: 4, promised: 25, repaired: 22, came_back: 2, days: 6.25, paid_cents: 152_000, unpaid: 3 }
const months = (more: Partial<Months> = {}): Months => ({ months: [month], stock_cents: 81_200, stock_pieces: 140, lies_cents: 12_000, lies_pieces: 31, ...more })
const advised = (told: unknown, may: string[] = []) => {
  serve({ 'GET /api/record/advice': told })
  showAt('/track-record', '/track-record', <AdviceScreen />, may)
}
const counted = (told: unknown) => {
  serve({ 'GET /api/record/months': told })
  showAt('/track-record/months', '/track-record/months', <MonthsScreen />, ['shop'])
}

test('what was said stands beside what came true, as a picture and as a table', async () => {
  advised(advice())
  expect(await screen.findByRole('img', { name: 'said 75%, cured 75% of 48; said 35%, cured 33% of 12' })).toBeVisible()
  expect(screen.getByRole('row', { name: /75% 48 36 75%, nineteen times in twenty between 61% and 85%/ })).toBeVisible()
  expect(screen.getByText(/Rows of under 20 repairs are grey/)).toBeVisible()
  expect(screen.getByText(/are not the same units/)).toBeVisible()
})

test.each([
  [advice(), 'between what was said and what came true'],
  [advice({ every: reliable({ is_enough: false }) }), 'too few to say: between what was said and what came true'],
  [advice({ every: reliable({ log_loss: 0.6 }) }), 'no'],
  [advice({ jobs: 3 }), 'too few to say: a closed job'],
])('a figure of too few says so: %#', async (told, says) => {
  advised(told)
  expect(await screen.findByText(says)).toBeVisible()
})

test('before anything is closed it says what will count', async () => {
  advised(advice({ every: reliable({ n: 0, groups: [] }) }))
  expect(await screen.findByText('Nothing to count yet')).toBeVisible()
})

test('a record that cannot be fetched is no empty one', async () => {
  advised(new Refusal('Away.', {}, 503))
  expect(await screen.findByRole('alert')).toHaveTextContent('Could not fetch the record')
})

test.each([
  [[], false],
  [['shop'], true],
])('the months are offered to who runs the shop alone: %s', async (may, isThere) => {
  advised(advice(), may)
  const nav = await screen.findByRole('navigation', { name: 'Track record' })
  expect(within(nav).queryByRole('link', { name: 'The months' }) !== null).toBe(isThere)
})

test('a month is counted in a row, and what lies is said', async () => {
  counted(months())
  expect(await screen.findByRole('row', { name: /Nov 2026 31 28 22 of 28 4 of 25 2 6\.3 €1520.*3 not written down/ })).toBeVisible()
  expect(screen.getByText(/€120 of it, 31 pieces, has lain for over a year/)).toBeVisible()
})

test('a month of nothing has no shares, and a shelf that turns over says so', async () => {
  counted(months({ months: [{ ...month, taken_in: 0, handed_back: 0, promised: 0, days: null, unpaid: 0 }], lies_pieces: 0 }))
  expect(await screen.findByRole('row', { name: /Nov 2026 0 0 – – 2 –/ })).toBeVisible()
  expect(screen.getByText('Nothing of it has lain for over a year.')).toBeVisible()
})

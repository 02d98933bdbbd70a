import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { inTen } from '@/lib/words'
import type { Week, WeekRow } from './day-queries'
import { WeekScreen } from './week-screen'

const row = (more: Partial<WeekRow> = {}): WeekRow => ({ tag: 'K-0101', console: 'M C', variant: 'V', stage_name: 'Isolate', hands: '', promised_on: '2026-12-03', half: '2026-12-01', nine: '2026-12-08', p_kept: 0.72, begins: '2026-11-30T09:00:00Z', bench_min: 66, first: 'bench', why: '', ...more }) // prettier-ignore
const days = Array.from({ length: 14 }, (_, n) => ({ day: new Date(Date.UTC(2026, 10, 28 + n)).toISOString().slice(0, 10), is_open: n % 7 !== 1 }))
const week = (more: Partial<Week> = {}): Week => ({ computed_at: '2026-11-28T10:14:00Z', is_stale: false, benches: 1, rule_name: 'by what waiting costs', saves_cents: 900, units: 1, rows: [row()], unread: [], owner_min: 360, answers: 0, unanswered: 0, days, deliveries: [], ...more }) // prettier-ignore
const shown = (answers: Record<string, unknown>, may: string[] = []) => {
  const sent = serve(answers)
  showAt('/day/week', '/day/week', <WeekScreen />, may)
  return sent
}

test.each([
  [0.01, 'hardly'],
  [0.06, '1 in 10'],
  [0.72, '7 in 10'],
  [0.949, '9 in 10'],
  [0.96, 'nearly sure'],
])('a chance of %s is said “%s”', (p, says) => expect(inTen(p)).toBe(says))

test('a unit says by which days it is done, and how likely its promise is', async () => {
  shown({ 'GET /api/week': week() })
  expect(await screen.findByText('half Tue 1 Dec, nine in ten Tue 8 Dec')).toBeVisible()
  expect(screen.getByText('Thu 3 Dec')).toBeVisible()
  expect(screen.getByText('7 in 10')).toBeVisible()
  expect(screen.getByText(/One bench, by what waiting costs, about €9 cheaper/)).toBeVisible()
})

test.each([
  [{ first: null, begins: null }, 'done, waits to be fetched'],
  [{ nine: '2026-12-01' }, 'done Tue 1 Dec, nine times in ten'],
  [{ promised_on: null, p_kept: null }, 'no promise yet'],
  [{ why: 'Waits for a part' }, 'Waits for a part.'],
])('what is otherwise is said: %#', async (more, says) => {
  shown({ 'GET /api/week': week({ rows: [row(more)] }) })
  expect(await screen.findByText(says)).toBeVisible()
})

test.each([
  [{ computed_at: null, units: 0, rows: [] }, 'The week is being worked out'],
  [{ units: 0, rows: [] }, 'Nothing to do'],
  [{ is_stale: true }, /Something has changed since/],
  [{ unread: ['K-0107'] }, /cannot be read: K-0107/],
  [{}, /answer within 6 hours of opening time, as is usual/],
  [{ owner_min: 75, answers: 1 }, /within 75 min of opening time, by the last answer that was waited for\./],
  [{ unanswered: 1 }, /, by one that is waited for still\./],
  [{ answers: 9, unanswered: 2 }, /, by the last 9 answers that were waited for and 2 that are waited for still\./],
  [{ answers: 42 }, /by the last 42 answers that were waited for/],
  [{ saves_cents: 0 }, 'One bench, by what waiting costs'],
])('how the week itself stands is said: %#', async (more, says) => {
  shown({ 'GET /api/week': week(more) })
  expect(await screen.findByText(says)).toBeVisible()
})

test('who had a unit last stands beside it, in the picture and at the head', async () => {
  shown({ 'GET /api/week': week({ rows: [row({ hands: 'Bram Ake' })] }) })
  expect(await screen.findAllByText('last: Bram Ake')).toHaveLength(2)
})

test('the three that come next stand first, in their order', async () => {
  shown({ 'GET /api/week': week({ rows: [1, 2, 3, 4].map((n) => row({ tag: `K-010${n}` })) }) })
  const list = (await screen.findByRole('heading', { name: 'Next on the bench' })).closest('section')
  expect(within(list as HTMLElement).getAllByRole('link').map((a) => a.textContent)).toEqual(['K-0101', 'K-0102', 'K-0103'])
})

test('a late delivery says so', async () => {
  shown({ 'GET /api/week': week({ deliveries: [{ tag: 'O-1', name: '2 × Pickup', half: '2026-12-01', nine: '2026-12-06', is_late: true }] }) })
  expect(await screen.findByText('late')).toBeVisible()
})

test('a week that cannot be fetched is no empty week', async () => {
  shown({ 'GET /api/week': new Refusal('Away.', {}, 503) })
  expect(await screen.findByRole('alert')).toHaveTextContent('Could not fetch the week')
})

test('an address is made and taken back by who runs the shop, and asked about first', async () => {
  const one = { id: 3, name: 'Phone', path: '/c/x.ics', at: '2026-11-28T10:00:00Z' }
  let there = [one]
  const sent = shown({ 'GET /api/week': week(), 'GET /api/calendars': () => there, 'POST /api/calendars': [one], 'POST /api/calendars/3/end': () => (there = []) }, ['shop'])
  await userEvent.type(await screen.findByLabelText('A new address, for'), 'Tablet{Enter}')
  await userEvent.click(await screen.findByRole('button', { name: 'Take back' }))
  expect(sent.map((s) => s.path)).toEqual(['/api/calendars'])
  await userEvent.click(screen.getByRole('button', { name: 'Take it back for good' }))
  await expect.poll(() => screen.queryByLabelText('Address for Phone')).toBeNull()
  expect(sent[0]?.body).toMatchObject({ name: 'Tablet' })
})

test('who does not run the shop has the file alone', async () => {
  shown({ 'GET /api/week': week() })
  expect(await screen.findByRole('link', { name: 'Fetch it as a file' })).toHaveAttribute('href', '/api/week/calendar.ics')
  expect(screen.queryByLabelText('A new address, for')).toBeNull()
})

test('a long week is there in part, and whole on demand', async () => {
  const rows = Array.from({ length: 42 }, (_, n) => row({ tag: `K-${1000 + n}` }))
  shown({ 'GET /api/week': (_: unknown, at: URL) => week({ units: 42, rows: at.searchParams.get('whole') === 'true' ? rows : rows.slice(0, 40) }) })
  await userEvent.click(await screen.findByRole('button', { name: 'Show the other 2' }))
  expect(await screen.findByText('K-1041')).toBeVisible()
  expect(screen.queryByRole('button', { name: /Show the other/ })).toBeNull()
})

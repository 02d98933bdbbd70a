import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { AdviceScreen } from './advice'
import { LearningScreen } from './learning'
import { MonthsScreen } from './months'
import type { Advice, Learning, LearntRow, Months, Reliability } from './record-queries'

const reliable = (more: Partial<Reliability> = {}): Reliability => ({ n: 60, is_enough: true, error: 0.04, log_loss: 0.41, base_log_loss: 0.52, groups: [{ said: 0.75, n: 48, came: 36, low: 0.61, high: 0.85 }, { said: 0.35, n: 12, came: 4, low: 0.14, high: 0.61 }], ...more }) // prettier-ignore
const share = (k: number, n: number) => ({ k, n, low: 0.1, high: 0.4, is_enough: n >= 20 })
const advice = (more: Partial<Advice> = {}): Advice => ({ first: share(30, 50), first_three: share(45, 50), proven_back: share(3, 80), probable_back: share(1, 4), money: { n: 40, mean_cents: -450, low_cents: -2000, high_cents: 1500, is_enough: true }, jobs: 55, parts_for_nothing: 0.31, every: reliable(), followed: reliable({ n: 40 }), chosen: reliable({ n: 20 }), ...more })
const month = { first: '2026-11-01', taken_in: 31, handed_back: 28, late: 4, promised: 25, repaired: 22, came_back: 2, days: 6.25, paid_cents: 152_000, unpaid: 3 }
const months = (more: Partial<Months> = {}): Months => ({ months: [month], stock_cents: 81_200, stock_pieces: 140, lies_cents: 12_000, lies_pieces: 31, suppliers: [{ name: 'Dune parts', n: 9, half_days: 6.2, nine_days: 14.4, on_the_way: 2, late: 1 }], ...more })
const advised = (told: unknown, may: string[] = []) => {
  serve({ 'GET /api/record/advice': told, 'GET /api/record/schools': { played: 0, of: 3, ways: [] } })
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

test('the same units stand by each way, the difference with its interval, and few are said to be few', async () => {
  const way = (id: string, name: string, more: number) => ({ way: id, name, mean_cents: 8000 + more, more_cents: more, low_cents: more - 300, high_cents: more + 300 })
  serve({ 'GET /api/record/advice': advice(), 'GET /api/record/schools': { played: 12, of: 40, ways: [way('here', 'As it was done here', -100), way('planner', 'By the advice', 0), way('flow_chart', 'By the flow chart', 2450)] } })
  showAt('/track-record', '/track-record', <AdviceScreen />)
  expect(await screen.findByRole('row', { name: /By the flow chart €105 \+€25 \(\+€22 to \+€28\)/ })).toBeVisible()
  expect(screen.getByRole('row', { name: /As it was done here €79 −€1 \(−€4 to \+€2\)/ })).toBeVisible()
  expect(screen.getByRole('row', { name: 'By the advice €80' })).toBeVisible()
  expect(screen.getByText('12 of 40 closed jobs with a confirmed cause')).toBeVisible()
  expect(screen.getByText(/Under 20 units/)).toBeVisible()
})

test('nothing was played again yet, and it says what counts', async () => {
  advised(advice())
  expect(await screen.findByText(/Nothing to compare yet/)).toBeVisible()
})

test('suppliers stand with how long they take and what is late', async () => {
  counted(months())
  expect(await screen.findByRole('row', { name: 'Dune parts 6 days 14 days 9 2 1' })).toBeVisible()
})

test('causes, returns and money are counted with their intervals, and too few are said to be', async () => {
  advised(advice())
  expect(await screen.findByText(/30 of 50 confirmed causes/)).toHaveTextContent('between 10% and 40%')
  expect(screen.getByText(/too few to say: 1 of 4 units/)).toBeVisible()
  expect(screen.getByText(/four of five between/)).toHaveTextContent('−€20 and +€15')
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

const row = (more: Partial<LearntRow> = {}): LearntRow => ({ about: 'cause', of: 'VM-S52', name: 'Rollers glazed', was: 0.044, now: 0.145, n: 25.9, low: 0.11, high: 0.18, confirmed: 14, of_confirmed: 48, ...more })
const part = (name: 'causes' | 'repairs' | 'pace', more = {}) => ({ part: name, n: 374, gain: 0.037, error: 0.013, is_better: true, since_version: false, ...more })
const inUse = { number: 3, at: '2026-11-20T10:00:00Z', by: 'Ida', jobs: 380, parts: ['causes' as const] }
const learning = (more: Partial<Learning> = {}): Learning => ({ jobs: 394, confirmed: 150, parts: [part('causes'), part('repairs', { gain: -0.001, is_better: false }), part('pace', { n: 12, gain: 0.2, is_better: false })], rows: [row(), row({ about: 'hand', of: 'Ida', name: 'Soldering', was: 1, now: 1.61, n: 32, low: 1.4, high: 1.8, confirmed: null, of_confirmed: null })], in_use: null, ...more }) // prettier-ignore
const taught = (told: unknown, may: string[] = [], jobs: unknown[] = []) => {
  const sent = serve({ 'GET /api/record/learning': told, 'GET /api/record/learning/suspects': { jobs }, 'POST /api/record/learning/use': learning({ in_use: inUse }), 'POST /api/record/learning/stop': learning() })
  showAt('/track-record/learning', '/track-record/learning', <LearningScreen />, may)
  return sent
}

test('what was learnt stands beside what was taken as true, with how it was judged', async () => {
  taught(learning())
  expect(await screen.findByRole('row', { name: /VM-S52 Rollers glazed 4% 1[45]%/ })).toHaveTextContent('14 of 48')
  expect(screen.getByRole('row', { name: /Ida Soldering 1\.00 times 1\.61 times/ })).toBeVisible()
  expect(screen.getByText('+0.037 ± 0.013').closest('li')).toHaveTextContent('better')
  expect(screen.getByText('−0.001 ± 0.013').closest('li')).toHaveTextContent('not better beyond doubt')
  expect(screen.getByText(/over 12/).closest('li')).toHaveTextContent('too few to say')
})

test('where nothing was learnt yet, nobody says that it is no better', async () => {
  taught(learning({ parts: [part('causes', { gain: 0, error: 0, is_better: false })] }))
  expect(await screen.findByText('too few to say')).toBeVisible()
})

test('a part that was put to use is judged by the jobs since then', async () => {
  taught(learning({ parts: [part('causes', { n: 41, since_version: true }), part('repairs')] }))
  expect(await screen.findByText(/over 41 since it was put to use/)).toBeVisible()
  expect(screen.getAllByText(/since it was put to use/)).toHaveLength(1)
})

test('a time that no sheet said was not known before the units told it', async () => {
  taught(learning({ rows: [row({ about: 'playing', name: 'film_dvd', was: null, now: 14.1, n: 9, low: 13.8, high: 14.5, confirmed: null, of_confirmed: null })] }))
  expect(await screen.findByRole('row', { name: /VM-S52 film DVD not known 14\.1 s 13\.8 s .* 14\.5 s 9/ })).toBeVisible()
})

test.each([
  [[], learning(), [false, false]],
  [['shop'], learning(), [true, false]],
  [['shop'], learning({ in_use: inUse }), [true, true]],
  [['shop'], learning({ in_use: { ...inUse, jobs: 394 } }), [false, true]],
  [['shop'], learning({ parts: [part('causes', { is_better: false })] }), [false, false]],
])('it is used and taken back by who runs the shop: %#', async (may, told, [use, back]) => {
  taught(told, may)
  await screen.findByText('In use')
  expect(screen.queryByRole('button', { name: /^Use what/ }) !== null).toBe(use)
  expect(screen.queryByRole('button', { name: 'Take it back' }) !== null).toBe(back)
})

test('putting it to use says over how many jobs it was shown', async () => {
  const sent = taught(learning(), ['shop'])
  await userEvent.click(await screen.findByRole('button', { name: 'Use what was learnt' }))
  expect(sent).toMatchObject([{ path: '/api/record/learning/use', body: { jobs: 394 } }])
})

test('the open jobs that would get another first suspect are named', async () => {
  taught(learning(), [], [{ tag: 'K-0111', variant: 'OP-L3', was: 'Trimmer off', p_was: 0.22, now: 'Pickup tilted', p_now: 0.31 }])
  expect(await screen.findByRole('link', { name: 'K-0111' })).toHaveAttribute('href', '/bench/K-0111')
  expect(screen.getByText('Pickup tilted')).toBeVisible()
})

test('before a job has closed it says what will teach', async () => {
  taught(learning({ jobs: 0, rows: [] }))
  expect(await screen.findByText('Nothing to learn from yet')).toBeVisible()
})

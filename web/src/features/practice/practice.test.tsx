import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import type { Drive } from '@/api/types'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { LessonsScreen } from './lessons-screen'
import type { Lesson, Run, Score } from './practice-queries'
import { RunScreen } from './run-screen'

const lesson = (more: Partial<Lesson> = {}): Lesson => ({ id: 'first_unit', number: 1, name: 'A first unit', family: 'tray', teaches: 'Look first.', tries: 0, is_mastered: false, best_times: null, open_run: null, ...more })
const run = (more: Partial<Run> = {}): Run => ({
  id: 4,
  lesson: 'first_unit',
  name: 'A first unit',
  number: 1,
  family: 'tray',
  drive: '',
  sheet: null,
  tells_each: false,
  is_led: false,
  moves: 2,
  told: ['Nothing rattles'],
  is_live: false,
  ways: [
    { depth: 'closed', name: 'closed up', is_now: true, is_shutting: false, minutes: 0, steps: [] },
    { depth: 'drive_open', name: 'drive open', is_now: false, is_shutting: false, minutes: 16, steps: ['Roof off', 'Bridge out'] },
  ],
  advice: null,
  cents: 270,
  minutes: 5,
  is_clean: false,
  may_guess: true,
  may_play: false,
  is_over: false,
  guess: '',
  parts: [{ id: 'belt', name: 'Belt' }],
  looks: [
    { id: 'power', ask: 'Does it power up?', how: 'Look.', group: 'What the drive does', cents: 60, minutes: 1, answer: 'Powers up', cautions: [], tips: null },
    { id: 'belt_look', ask: 'How does the belt look?', how: 'Look.', group: 'drive open', cents: 900, minutes: 15, answer: '', cautions: ['Mains inside the case'], tips: null },
    { id: 'board_supply', ask: 'Supply at the drive: in its band?', how: 'Meter.', group: 'cover off', cents: 300, minutes: 4, answer: '', cautions: [], tips: { points: 'J7-2 to frame', limit: '4.85 V to 5.25 V, running' } },
  ],
  repairs: [{ id: 'replace_drive', name: 'Replace the whole drive', part: 'Drive', cents: 9000, minutes: 30, part_cents: 6000, wait_days: 9, is_wet: false, brings_board: true, donor_cents: 2400, tried: 1, steps: [{ text: 'Pull the mains plug.', cautions: ['Capacitors hold charge.'] }], goes_wrong: 'a flex left out' }],
  log: [{ did: 'Does it power up?', says: 'Powers up', mishap: '', cents: 60, at_min: 1, beside: null }],
  score: null,
  ...more,
})
const score: Score = {
  cents: 18_030,
  minutes: 51,
  planner_cents: 10_920,
  planner_minutes: 98,
  is_repaired: false,
  is_mastered: false,
  needless: 1,
  risks: 2,
  hints: 1,
  guess: 'Belt, 90 percent: badly judged',
  hidden: ['Belt off'],
  teaches: 'Look first.',
  steps: [
    { did: 'Offer a disc', says: 'Takes it', mishap: '', regret_cents: 0, best: '', traps: [] },
    { did: 'Clean the rollers', says: 'Worse', mishap: 'Power on what was not dry.', regret_cents: 1572, best: 'Does it read?', traps: ['Power with something wet inside'] },
  ],
}
const RUN = '/api/practice/runs/4'
/** A unit that stands where the last move left it. */
const moving = (first: Run, then: Run) => {
  let now = first
  return { [`GET ${RUN}`]: () => now, [`POST ${RUN}/moves`]: () => (now = then) }
}
const playing = (answers: Record<string, unknown>) => {
  const sent = serve(answers)
  showAt('/practice/4', '/practice/:id', <RunScreen id={4} plan={(drive, parts) => <p>{`${drive.family} plan: ${parts.map((p) => p.name).join()}`}</p>} />)
  return sent
}

test('a lesson is begun; one that is open goes on', async () => {
  const sent = serve({ 'GET /api/practice/drives': [{ sheet: 7, name: 'Own tray drive', lessons: ['first_unit'] }], 'GET /api/practice/lessons': [lesson(), lesson({ id: 'b', number: 2, name: 'It rattles', tries: 2, is_mastered: true, best_times: 1.2, open_run: 9 })], 'POST /api/practice/runs': run() })
  const router = showAt('/practice', '/practice', <LessonsScreen />)
  expect(await screen.findByText('1 of 2 mastered')).toBeVisible()
  expect(screen.getByRole('link', { name: 'Go on' })).toHaveAttribute('href', '/practice/9')
  expect(screen.getByText(/1\.2 times the planner/)).toBeVisible()
  await userEvent.click(screen.getByRole('button', { name: 'Begin: A first unit' }))
  await expect.poll(() => router.state.location.pathname).toBe('/practice/4')
  expect(sent[0]?.body).toMatchObject({ lesson: 'first_unit' })
})

test('drives of the shop that cannot be fetched are said to be missing, and lessons go on', async () => {
  serve({ 'GET /api/practice/lessons': [lesson()] })
  showAt('/practice', '/practice', <LessonsScreen />)
  expect(await screen.findByRole('alert')).toHaveTextContent('Your own drives could not be fetched')
  expect(screen.getByRole('button', { name: 'Begin: A first unit' })).toBeEnabled()
})

test('the class is shown to who runs the shop, and to nobody else', async () => {
  serve({ 'GET /api/practice/drives': [{ sheet: 7, name: 'Own tray drive', lessons: ['first_unit'] }], 'GET /api/practice/lessons': [lesson()], 'GET /api/practice/class': [{ name: 'Bram', mastered: ['first_unit'], tries: 3, mean_times: 1.4, traps: ['No spin (2)'] }] })
  showAt('/practice', '/practice', <LessonsScreen />, ['shop'])
  expect(await screen.findByRole('row', { name: /Bram.*A first unit.*3.*1\.4.*No spin/ })).toBeVisible()
})

test('a look is pressed and the world answers', async () => {
  const sent = playing(moving(run(), run({ moves: 3, log: [{ did: 'How does the belt look?', says: 'Belt is off', mishap: '', cents: 900, at_min: 16, beside: null }] })))
  await userEvent.type(await screen.findByLabelText('Find a look'), 'belt')
  expect(screen.queryByRole('button', { name: /Does it power up/ })).toBeNull()
  await userEvent.click(screen.getByRole('button', { name: /How does the belt look.*Mains inside the case.*15 min/ }))
  expect(await within(screen.getByRole('list', { name: 'What happened' })).findByText('Belt is off')).toBeVisible()
  expect(sent[0]?.body).toMatchObject({ do: 'look', what: 'belt_look', after: 2 })
})

test('what the planner would have done is told after each move to who asked for that', async () => {
  const sent = serve({ 'GET /api/practice/drives': [{ sheet: 7, name: 'Own tray drive', lessons: ['first_unit'] }], 'GET /api/practice/lessons': [lesson()], 'POST /api/practice/runs': run() })
  showAt('/practice', '/practice', <LessonsScreen />)
  await userEvent.click(await screen.findByRole('button', { name: 'after each move' }))
  await userEvent.click(screen.getByRole('button', { name: 'Begin: A first unit' }))
  expect(sent[0]?.body).toMatchObject({ lesson: 'first_unit', sheet: null, tells_each: true, is_led: false })
})

test('a lesson is played on a drive of the shop’s own where it is for it', async () => {
  const sent = serve({ 'GET /api/practice/drives': [{ sheet: 7, name: 'Own tray drive', lessons: ['first_unit'] }], 'GET /api/practice/lessons': [lesson(), lesson({ id: 'b', name: 'It rattles' })], 'POST /api/practice/runs': run() })
  showAt('/practice', '/practice', <LessonsScreen />)
  await userEvent.selectOptions(await screen.findByLabelText('On which drive'), await screen.findByRole('option', { name: 'Own tray drive' }))
  expect(screen.getByRole('button', { name: 'Begin: It rattles' })).toBeDisabled()
  await userEvent.click(screen.getByRole('button', { name: /before each/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Begin: A first unit' }))
  expect(sent[0]?.body).toMatchObject({ lesson: 'first_unit', sheet: 7, tells_each: false, is_led: true })
})

test('it is opened by hand, by its sheet’s steps; under power it waits for the plug', async () => {
  const sent = playing(moving(run(), run({ moves: 3, is_live: true })))
  await userEvent.click(await screen.findByRole('button', { name: 'drive open' }))
  expect(within(screen.getByRole('list', { name: 'What is undone' })).getAllByRole('listitem').map((x) => x.textContent)).toEqual(['Roof off', 'Bridge out'])
  await userEvent.click(screen.getByRole('button', { name: 'Open it so far' }))
  expect(sent[0]?.body).toMatchObject({ do: 'open', what: 'drive_open', care: [], after: 2 })
  await userEvent.click(await screen.findByRole('button', { name: 'drive open' }))
  expect(await screen.findByText(/Take the mains out first/)).toBeVisible()
  expect(screen.getByRole('button', { name: 'Open it so far' })).toBeDisabled()
})

test('before it is shut somebody says whether every flex was looked over', async () => {
  const ways = run().ways.map((w) => ({ ...w, is_now: !w.is_now, is_shutting: w.is_now }))
  const sent = playing({ [`GET ${RUN}`]: run({ ways }), [`POST ${RUN}/moves`]: run({ moves: 3 }) })
  await userEvent.click(await screen.findByRole('button', { name: 'closed up' }))
  await userEvent.click(screen.getByLabelText(/Look over every flex first/))
  await userEvent.click(screen.getByRole('button', { name: 'Shut it so far' }))
  expect(sent[0]?.body).toMatchObject({ do: 'open', what: 'closed', care: ['look_over'] })
})

test('L turns the mains', async () => {
  const sent = playing(moving(run(), run({ moves: 3, is_live: true })))
  await screen.findByRole('region', { name: 'Now' })
  await userEvent.keyboard('l')
  expect(sent[0]?.body).toMatchObject({ do: 'mains', mains: 'live' })
})

test('what a move answers can be gone on with while everything else is still being asked anew', async () => {
  let asked = 0
  const sent = playing({ [`GET ${RUN}`]: () => (asked++ ? new Promise(() => {}) : run()), [`POST ${RUN}/moves`]: run({ moves: 3, is_live: true, told: ['It hums'] }) })
  await screen.findByText('Nothing rattles')
  await userEvent.keyboard('l')
  await screen.findByText('It hums')
  await userEvent.keyboard('l')
  expect(sent[1]?.body).toMatchObject({ do: 'mains', mains: 'out', after: 3 })
})

test('what was asked after an earlier move does not put the later one back', async () => {
  const late: ((told: Run) => void)[] = []
  let asked = 0
  const told = [run({ moves: 3, told: ['It hums'] }), run({ moves: 4, told: ['It rattles'] })]
  playing({ [`GET ${RUN}`]: () => (asked++ ? new Promise<Run>((done) => late.push(done)) : run()), [`POST ${RUN}/moves`]: () => told.shift() })
  await screen.findByText('Nothing rattles')
  await userEvent.keyboard('l')
  await screen.findByText('It hums')
  await userEvent.keyboard('l')
  await screen.findByText('It rattles')
  late[0]?.(run({ moves: 3, told: ['It hums'] }))
  await new Promise((done) => setTimeout(done, 50))
  expect(screen.getByText('It rattles')).toBeVisible()
})

test('who is led sees the next move and the suspects, and is offered no hint', async () => {
  const sent = playing({ [`GET ${RUN}`]: run({ is_led: true, advice: { says: 'Offer a disc', do: 'look', what: 'takes_disc', care: [], drive: { family: 'tray' } as Drive, parts: [{ id: 'belt', part: 'belt', name: 'Belt', p: 0.42 }], suspects: [{ id: 'belt_slack', name: 'Belt slack', part: 'belt', p: 0.42 }] } }), [`POST ${RUN}/moves`]: run({ moves: 3 }) })
  expect(await screen.findByRole('region', { name: 'Next move' })).toHaveTextContent('Offer a disc')
  expect(screen.getByText('tray plan: Belt')).toBeVisible()
  expect(screen.getByText('Belt slack')).toBeVisible()
  expect(screen.queryByRole('button', { name: /A hint/ })).toBeNull()
  await userEvent.keyboard('{Enter}')
  expect(sent[0]?.body).toMatchObject({ do: 'look', what: 'takes_disc', care: [] })
})

test('each move stands beside the planner’s, with the trap by its name', async () => {
  const log = [
    { did: 'Clean the rollers', says: 'Worse', mishap: '', cents: 60, at_min: 1, beside: { best: 'Does it read?', regret_cents: 150, traps: ['Power with something wet inside'] } },
    { did: 'Offer a disc', says: 'Takes it', mishap: '', cents: 60, at_min: 1, beside: { best: '', regret_cents: 0, traps: [] } },
  ]
  playing({ [`GET ${RUN}`]: run({ log, tells_each: true }) })
  const [first, newest] = within(await screen.findByRole('list', { name: 'What happened' })).getAllByRole('listitem')
  expect(newest).toHaveTextContent('As good as the planner’s.')
  expect(first).toHaveTextContent('The planner: Does it read? (€1.50 cheaper to the end)Power with something wet inside')
})

test('in which state it is measured is the learner’s to choose, with the limit beside it', async () => {
  const sent = playing(moving(run(), run({ moves: 3 })))
  const point = await screen.findByRole('group', { name: 'Measure J7-2 to frame, 4.85 V to 5.25 V, running' })
  await userEvent.click(within(point).getByRole('button', { name: 'running' }))
  expect(sent[0]?.body).toMatchObject({ do: 'look', what: 'board_supply', mains: 'live', after: 2 })
})

test('a donor’s part can be tried first, with what it costs if it stays', async () => {
  const sent = playing({ [`GET ${RUN}`]: run(), [`POST ${RUN}/moves`]: run({ moves: 3 }) })
  await userEvent.click(await screen.findByRole('tab', { name: 'Repair and try' }))
  await userEvent.click(screen.getByRole('button', { name: /Replace the whole drive/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Try a donor’s part, here now (€24 if it stays)' }))
  expect(sent[0]?.body).toMatchObject({ do: 'swap', what: 'replace_drive', after: 2 })
})

test('a repair is done with the care that was ticked', async () => {
  const sent = playing({ [`GET ${RUN}`]: run(), [`POST ${RUN}/moves`]: run({ moves: 3 }) })
  await userEvent.click(await screen.findByRole('tab', { name: 'Repair and try' }))
  await userEvent.click(screen.getByRole('button', { name: /Replace the whole drive.*tried.*30 min · €60 · 9 days/ }))
  expect(within(screen.getByRole('list', { name: 'How it is done' })).getByRole('listitem')).toHaveTextContent('Pull the mains plug.Capacitors hold charge.')
  await userEvent.click(screen.getByLabelText(/Look over every flex/))
  await userEvent.click(screen.getByLabelText(/own board across/))
  await userEvent.click(screen.getByRole('button', { name: 'Do it, and try' }))
  await expect.poll(() => sent[0]?.body).toMatchObject({ do: 'repair', what: 'replace_drive', care: ['look_over', 'own_board'] })
})

test('a first guess takes a whole percentage, and stands once said', async () => {
  const sent = playing(moving(run(), run({ moves: 3, guess: 'Belt, 60 percent', may_guess: false })))
  await userEvent.selectOptions(await screen.findByLabelText('Part'), 'belt')
  await userEvent.type(screen.getByLabelText('Percent'), '160')
  expect(screen.getByRole('button', { name: 'Note it' })).toBeDisabled()
  await userEvent.clear(screen.getByLabelText('Percent'))
  await userEvent.type(screen.getByLabelText('Percent'), '60{Enter}')
  expect(await screen.findByText('Belt, 60 percent')).toBeVisible()
  expect(sent[0]?.body).toMatchObject({ do: 'guess', what: 'belt', percent: 60 })
})

test('three passes are offered after a clean trial alone', async () => {
  playing({ [`GET ${RUN}`]: run({ is_clean: true }) })
  expect(await screen.findByRole('button', { name: 'Three passes more' })).toBeVisible()
  expect(screen.getByRole('button', { name: 'Hand it back: it works' })).toBeVisible()
})

test('what went on in another window is said, and shown', async () => {
  let asked = 0
  playing({ [`GET ${RUN}`]: () => (asked++ === 0 ? run() : run({ moves: 5, cents: 99_00 })), [`POST ${RUN}/moves`]: new Refusal('This unit went on in another window.', {}, 409) })
  await userEvent.click(await screen.findByRole('button', { name: /A hint/ }))
  expect(await screen.findByRole('alert')).toHaveTextContent('another window')
  expect(await screen.findByText('€99')).toBeVisible()
})

test('afterwards each move stands beside the best, with its trap by name', async () => {
  playing({ [`GET ${RUN}`]: run({ is_over: true, score }) })
  expect(await screen.findByText('Belt off')).toBeVisible()
  const [first, second] = screen.getAllByRole('listitem')
  expect(first).toHaveTextContent('as good as any')
  expect(second).toHaveTextContent(/€15\.72 more than the best: Does it read\?.*Trap: Power with something wet inside/)
})

test('a unit that is not there says so, with the way back', async () => {
  playing({ [`GET ${RUN}`]: new Refusal('There is no such practice unit of yours.', {}, 404) })
  expect(await screen.findByRole('alert')).toHaveTextContent('no such practice unit')
  expect(screen.getByRole('link', { name: 'To the lessons' })).toBeVisible()
})

import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { serve } from '@/lib/tests/server'
import type { Job, UnitMat } from '@/api/types'
import { ProveMat } from '../prove/prove-mat'
import { jobOf, onBench } from '../tests/kit'
import { MatDialog } from './mat-dialog'

const place = (n: number, state: 'in' | 'out' = 'in') => ({ id: `console:rear#${n}`, at: null, state, why: '' })
const group = { id: 'console:rear', name: 'rear edge', screw: 'cross 1, 3 × 8 mm', length_mm: 8, thread_mm: 3, head: 'cross 1', colour: '', captive: false, places: [place(1), place(2, 'out')] }
const step = (id: string, more: Partial<UnitMat['steps'][number]> = {}): UnitMat['steps'][number] => ({ id, name: id.split(':')[1]!, kind: 'screws', is_outside: true, side: 'top', minutes: 1, is_open: false, held: '', looks: ['Hidden under the seal'], checks: ['2 × cross 1: rear edge'], photo_first: true, picture: '', mains: 'out', ways: [], groups: [], ...more }) // prettier-ignore
const way = (...ids: string[]) => ({ minutes: 3, moves: ids.map((id, n) => ({ step: id, turn_to: n ? '' : 'back', falls: n ? [] : ['the spring'] })) })
const mat: UnitMat = { goals: [{ id: 'depth_1', name: 'cover off' }], goal: 'depth_1', steps: [step('console:Screws', { groups: [group] }), step('console:Cover')], way_in: way('console:Screws', 'console:Cover'), way_back: way(), recorded: [], next_picture: '', to_record: [], latches: ['lift bar'], says: ['Nothing is open.'] }

const opened = (more: Partial<Job> = {}, found: UnitMat = mat, startBack = false) => {
  serve({ 'GET /api/jobs/K-0107/mat': found })
  return onBench(<MatDialog startBack={startBack} onClose={vi.fn()} />, jobOf({ power: 'out', ...more }))
}

test('the next step says what to know, what to turn and what falls; Enter does it', async () => {
  const send = opened()
  const next = await screen.findByRole('region', { name: 'Next' })
  expect(next).toHaveTextContent(/Screws.*back up.*Hold or tape first, it falls out: the spring.*Hidden under the seal.*A photo first/)
  await userEvent.keyboard('{Enter}')
  expect(send).toHaveBeenCalledWith({ do: 'open_step', step: 'console:Screws', is_open: true, way: '', turned_to: 'back' }, 'Opened: Screws')
})

test('with the plug in, Enter says first that it is pulled', async () => {
  const send = opened({ power: 'standby' })
  await screen.findByRole('button', { name: 'Plug is pulled: mains out' })
  await userEvent.keyboard('{Enter}')
  expect(send).toHaveBeenCalledWith({ do: 'mains', state: 'out' }, 'Mains out')
})

test('where shops dispute, each way stands with its risk, and the one that was taken is written down', async () => {
  const ways = [{ name: 'by its housing', how: 'Up', risk: 'cracks', when: '' }, { name: 'all wires', how: 'Straight', risk: 'a crimp', when: 'deep' }] // prettier-ignore
  const send = opened({}, { ...mat, steps: [step('console:Screws', { ways })], way_in: way('console:Screws') })
  await userEvent.click(await screen.findByLabelText(/all wires/))
  await userEvent.click(screen.getByRole('button', { name: 'Done' }))
  expect(send.mock.calls[0]?.[0]).toMatchObject({ way: 'all wires' })
})

test('on the way back it says what is looked at', async () => {
  const send = opened({}, { ...mat, way_back: way('console:Screws') }, true)
  expect(await screen.findByRole('region', { name: 'Next' })).toHaveTextContent('Back: Screws')
  expect(screen.getByText('2 × cross 1: rear edge')).toBeVisible()
  await userEvent.keyboard('{Enter}')
  expect(send.mock.calls[0]?.[0]).toMatchObject({ is_open: false })
})

test('another screw in a place is said with its size, with a comma as well', async () => {
  const send = opened()
  await userEvent.click(await screen.findByRole('button', { name: '2 on the mat' }))
  const form = within(screen.getByRole('form', { name: 'rear edge, 2' }))
  await userEvent.click(form.getByLabelText('Another screw'))
  expect(form.getByRole('button', { name: 'Write it down' })).toBeDisabled()
  await userEvent.type(form.getByLabelText('Its length, mm'), '7,5')
  await userEvent.click(form.getByRole('button', { name: 'Write it down' }))
  expect(send.mock.calls[0]?.[0]).toEqual({ do: 'mark_place', place: 'console:rear#2', state: 'replaced', why: '', length_mm: 7.5, thread_mm: 3, head: 'cross 1' })
})

test('what stays empty needs a word why', async () => {
  opened()
  await userEvent.click(await screen.findByRole('button', { name: '1 in' }))
  await userEvent.click(screen.getByLabelText('Stays empty'))
  expect(screen.getByRole('button', { name: 'Write it down' })).toBeDisabled()
})

test('where no sheet says how, that is said with the way to the sheets', async () => {
  opened({}, { ...mat, steps: [], way_in: way(), goals: [], goal: '' })
  await waitFor(() => expect(screen.getByRole('link', { name: 'The sheets of V' })).toHaveAttribute('href', '/drives/V'))
})

test('a unit that no sheet knows is recorded step by step', async () => {
  const send = opened({}, { ...mat, to_record: ['console', 'drive'], steps: [], way_in: way(), goals: [], goal: '' })
  const button = await screen.findByRole('button', { name: 'It is done: write it down' })
  await userEvent.type(screen.getByLabelText('What was just undone?'), 'Cover screws')
  expect(button).toBeDisabled()
  for (const [label, text] of [['How many', '4'], ['Length, mm', '8,5'], ['Thread, mm', '3']] as const) await userEvent.type(screen.getByLabelText(label), text) // prettier-ignore
  await userEvent.selectOptions(screen.getByLabelText('Now it is open to'), 'cover off')
  await userEvent.click(button)
  expect(send.mock.calls[0]?.[0]).toMatchObject({ do: 'record_step', whose: 'console', step: 'Cover screws', count: 4, length_mm: 8.5, thread_mm: 3, opens_to: 'cover off' })
})

test('the sheet’s picture of a step stands at it, and a word where it did not come', async () => {
  opened({}, { ...mat, steps: [step('console:Screws', { picture: 'ab' }), step('console:Cover')] })
  const picture = await screen.findByRole('img', { name: 'Screws, as the sheet shows it' })
  expect(picture).toHaveAttribute('src', '/api/photos/ab')
  fireEvent.error(picture)
  expect(screen.getByText('The picture did not come with the sheet.')).toBeVisible()
})

test('the photo that goes with the next step is shown before it is written down', async () => {
  opened({}, { ...mat, recorded: [9], next_picture: 'ab', to_record: ['drive'] })
  expect(await screen.findByRole('img', { name: 'The photo that goes with this step' })).toHaveAttribute('src', '/api/photos/ab')
  expect(screen.getByRole('button', { name: 'Another photo of it' })).toBeVisible()
})

test('what was recorded is taken back, or becomes the order of the sheets', async () => {
  serve({ 'GET /api/jobs/K-0107/mat': { ...mat, recorded: [8, 9], to_record: ['drive'] }, 'POST /api/jobs/K-0107/recorded-sheets': { written: ['Orlo: version 2'] } })
  const send = onBench(<MatDialog startBack={false} onClose={vi.fn()} />, jobOf({ power: 'out' }))
  await userEvent.click(await screen.findByRole('button', { name: 'Take the last one back' }))
  expect(send.mock.calls[0]?.[0]).toMatchObject({ do: 'strike', line: 9 })
  await userEvent.click(screen.getByRole('button', { name: 'Make the 2 steps the sheets’ order' }))
  expect(await screen.findByText('Written: Orlo: version 2')).toBeVisible()
})

test('the picture says its facts in words', async () => {
  opened()
  expect(await screen.findByRole('img', { name: 'The console from above. Nothing is open.' })).toBeInTheDocument()
})

test.each([
  ['out', { do: 'open_step', step: 'drive:Deck', is_open: false, turned_to: '' }],
  ['live', { do: 'mains', state: 'out' }],
] as const)('in Prove with the mains %s Enter puts back what is next', async (power, ask) => {
  const next_back = { step: 'drive:Deck', name: 'Deck', turn_to: '', checks: ['bar down flat'] }
  const send = onBench(<ProveMat />, jobOf({ stage: 'prove', depth: 3, power, mat: { has_order: true, left: 2, next_back }, missing: [{ code: 'closed', text: 'x' }] }))
  expect(screen.getByText('bar down flat')).toBeVisible()
  await userEvent.keyboard('{Enter}')
  expect(send.mock.calls[0]?.[0]).toEqual(ask)
})

test('a unit that goes back as it is shows what is looked at as well', () => {
  const next_back = { step: 'drive:Deck', name: 'Deck', turn_to: '', checks: ['bar down flat'] }
  const proposal = { repair: '', name: 'As it is', total_cents: 0, p_success: 0, p_lasts_year: null, end: 'unrepaired' }
  onBench(<ProveMat />, jobOf({ stage: 'prove', power: 'out', mat: { has_order: true, left: 1, next_back }, agree: { ...jobOf().agree, proposal }, missing: [{ code: 'closed', text: 'x' }] }))
  expect(screen.getByText('bar down flat')).toBeVisible()
})

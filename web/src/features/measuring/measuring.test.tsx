import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import type { Tool, ToolField } from '@/api/types'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { Calculator } from './calculator'
import { ready, sorted, unitOf, withUnit } from './inputs'
import { MeasureOnJob } from './measure-on-job'
import { ToolsPage } from './measuring-page'
import { Picture } from './pictures/picture'

const field = (id: string, more: Partial<ToolField> = {}): ToolField => ({ id, name: id, kind: 'quantity', quantity: 'length', unit: 'mm', choices: [], columns: [], optional: false, hint: '', each_time: false, start: '', ...more })
const told = { headline: 'Slack: it hangs.', verdict: 'refused', verdict_said: 'refused', reasons: [{ verdict: 'refused', text: 'It hangs.' }], numbers: [{ name: 'Around', text: '180 mm' }], notes: ['Buy 138 mm.'], cautions: [], picture: {}, speaks: [], may_power: false, mains: 'any', next_rows: {} }
const belt: Tool = { id: 'belt', title: 'Belt', about: 'Stretch on its pulleys.', fields: [field('section'), field('sheet', { optional: true })], questions: ['belt_look'], starts: [] }
const asks = { question: 'belt_look', ask: 'Belt: tight?', answers: [{ outcome: 'tired', label: 'Tired', share: 0.97 }, { outcome: 'good', label: 'Good', share: 0.03 }] } // prettier-ignore

test.each([
  ['12.5', 'mm', '12.5 mm'],
  ['12,5', 'V', '12,5 V'],
  ['4.7k', 'Ω', '4.7k'],
  ['OL', 'Ω', 'OL'],
  ['', 'mm', ''],
])('%s beside %s is %s', (text, unit, says) => expect(withUnit(text, unit)).toBe(says))

test('a bare number takes the unit that the limit beside it is written in', () => {
  const any = field('value', { quantity: '*', unit: '' })
  expect([unitOf(any, { quantity: 'voltage', low: '700 mV' }), unitOf(any, { quantity: 'voltage' }), unitOf(any, { quantity: 'resistance' })]).toEqual(['mV', 'V', 'Ω'])
})

test('what goes out has its units and nothing empty, in rows as well', () => {
  const fields = [field('a'), field('b', { kind: 'quantities' }), field('r', { kind: 'rows', columns: [field('x'), field('y', { kind: 'flag' })] })]
  expect(ready(fields, { a: '', b: ['1', '', '2 cm'], r: [{ x: '3', y: false }] })).toEqual({ b: ['1 mm', '2 cm'], r: [{ x: '3 mm', y: false }] })
})

test('what is still empty is missing and not wrong', () => {
  expect(sorted([{ place: '/a', text: 'Section is missing.' }, { place: '/r/0/x', text: 'no number' }], { r: [{ x: 'y' }] })).toEqual({ wrong: { '/r/0/x': 'no number' }, missing: ['Section'] })
})

const onTape = (tool: Tool, answer: unknown, more: object = {}) => {
  const keep = vi.fn()
  const sent = serve({ [`POST /api/tools/${tool.id}`]: answer })
  showAt('/x', '/x', <Calculator tool={tool} tag="K-1" power="out" onKeep={keep} {...more} />)
  return { keep, sent }
}

test('the answer comes as it is typed, with every reason, and goes on the tape with its inputs', async () => {
  const { keep, sent } = onTape(belt, { told: { ...told, speaks: [asks] }, faults: [] })
  await userEvent.type(screen.getByLabelText('section'), '1.2')
  expect(await screen.findByText('Slack: it hangs.')).toBeInTheDocument()
  expect(screen.getByText('no power')).toBeInTheDocument()
  await waitFor(() => expect(sent.at(-1)?.body).toEqual({ inputs: { section: '1.2 mm' } }))
  await userEvent.click(await screen.findByRole('button', { name: 'Keep it on the tape' }))
  expect(keep).toHaveBeenCalledWith({ tool: 'belt', inputs: { section: '1.2 mm' }, about: '', question: 'belt_look', headline: 'Slack: it hangs.' })
  expect(screen.getByLabelText('section')).toHaveValue('1.2 mm') // it is not on the tape yet
})

test.each([
  [false, ''],
  [true, '1.2 mm'],
])('what was typed goes once the tape has it, in whatever order; struck (%s), it is there to be put right', async (is_struck, left) => {
  localStorage.setItem('spindle:measure::K-1:belt:', JSON.stringify({ section: '1.2 mm', sheet: '150 mm' }))
  serve({ 'POST /api/tools/belt': { told, faults: [] }, 'GET /api/jobs/K-1/measured': [{ tool: 'belt', about: '', inputs: { sheet: '150 mm', section: '1.2 mm' }, is_struck }] })
  showAt('/x', '/x', <Calculator tool={belt} tag="K-1" power="out" onKeep={vi.fn()} />)
  await screen.findByText('Slack: it hangs.')
  await waitFor(() => expect(screen.getByLabelText('section')).toHaveValue(left))
})

test('what is wrong stands at its field, what is missing apart, and half a form survives a reload', async () => {
  const answer = { told: null, faults: [{ place: '/section', text: 'no number with a unit' }, { place: '/sheet', text: 'Sheet is missing.' }] } // prettier-ignore
  const first = onTape(belt, answer)
  await userEvent.type(screen.getByLabelText('section'), 'wide')
  expect(await screen.findByRole('alert')).toHaveTextContent('no number')
  expect(screen.getByText('Sheet.')).toBeInTheDocument()
  expect(screen.queryByRole('button', { name: 'Keep it on the tape' })).not.toBeInTheDocument()
  expect(first.keep).not.toHaveBeenCalled()
  expect(localStorage.getItem('spindle:measure::K-1:belt:')).toContain('wide')
})

test('without a network it says so, and what was typed stays', async () => {
  serve({})
  showAt('/x', '/x', <Calculator tool={belt} />)
  await userEvent.type(screen.getByLabelText('section'), '1')
  expect(await screen.findByText(/What was typed stays/, {}, { timeout: 8_000 })).toBeInTheDocument()
  expect(screen.getByLabelText('section')).toHaveValue('1')
}, 12_000)

test.each([
  ['spins', '', ''],
  ['spins', 'belt_pull', 'belt_pull'],
  ['belt_look', 'belt_pull', 'belt_look'],
])('with the question %s on the bench, what the sheet names answers %s: kept as %s', async (question, usual, kept) => {
  const speaks = [asks, { ...asks, question: 'belt_pull' }]
  const { keep } = onTape(belt, { told: { ...told, speaks }, faults: [] }, { question, start: { name: 'Load belt', inputs: {}, question: usual } })
  const button = await screen.findByRole('button', { name: 'Keep it on the tape' })
  await waitFor(() => expect(button).toBeEnabled())
  await userEvent.click(button)
  expect(keep.mock.calls[0]?.[0]).toMatchObject({ question: kept, about: 'Load belt' })
})

test.each([
  ['out', 'out', true],
  ['out', 'standby', false],
  ['live', 'out', false],
  ['any', 'live', true],
])('what is read with the mains %s is kept while it is %s: %s', async (mains, power, isKept) => {
  onTape(belt, { told: { ...told, mains }, faults: [] }, { power })
  const button = await screen.findByRole('button', { name: 'Keep it on the tape' })
  await waitFor(() => (isKept ? expect(button).toBeEnabled() : expect(button).toBeDisabled()))
  expect(screen.queryAllByText(/and on the bench it is/)).toHaveLength(isKept ? 0 : 1)
})

const flex: Tool = { ...belt, id: 'flex', questions: [], fields: [field('readings', { kind: 'rows', columns: [field('from', { kind: 'number' }), field('closed', { kind: 'flag', name: 'Closed?', choices: [{ id: 'yes', name: 'Closed' }, { id: 'no', name: 'Open' }] })] })] } // prettier-ignore

test('where the next row only wants a yes or no, two large keys give it; a row can be taken out', async () => {
  const { sent } = onTape(flex, { told: { ...told, next_rows: { readings: { from: 12 } } }, faults: [] })
  await userEvent.click(await screen.findByRole('button', { name: 'Open' }))
  await waitFor(() => expect(sent.at(-1)?.body).toEqual({ inputs: { readings: [{ from: 12, closed: false }] } }))
  await userEvent.click(screen.getByRole('button', { name: 'Take row 1 out' }))
  await waitFor(() => expect(sent.at(-1)?.body).toEqual({ inputs: {} }))
})

const seen = { ...belt, starts: [{ name: 'Load belt', inputs: { sheet: '152 mm' }, question: '' }, { name: 'Old belt', inputs: {}, question: '' }] } // prettier-ignore

test('on a job what the sheet says is picked by name, folded, and goes with it', async () => {
  const sent = serve({ 'GET /api/tools': [seen, flex], 'POST /api/tools/belt': { told, faults: [] } })
  showAt('/x', '/x', <MeasureOnJob tag="K-1" question="" power="out" onKeep={vi.fn()} />)
  await userEvent.click(await screen.findByRole('button', { name: 'Load belt' }))
  expect(screen.getByText('The sheet says: sheet 152 mm')).toBeInTheDocument()
  await userEvent.type(screen.getByLabelText('section'), '1')
  await waitFor(() => expect(sent.at(-1)?.body).toEqual({ inputs: { sheet: '152 mm', section: '1 mm' } }))
  await userEvent.click(screen.getByRole('button', { name: 'Something else' }))
  expect(screen.getByRole('button', { name: 'Old belt' })).toBeInTheDocument()
})

test.each([
  ['belt_look', ['Belt']],
  ['spins', ['Belt', 'Flex']],
])('for the question %s there are %s', async (question, titles) => {
  serve({ 'GET /api/tools': [seen, { ...flex, title: 'Flex' }] })
  showAt('/x', '/x', <MeasureOnJob tag="K-1" question={question} power="out" onKeep={vi.fn()} />)
  const list = await screen.findByRole('list')
  expect(within(list).getAllByText(/^(Belt|Flex)$/).map((e) => e.textContent)).toEqual(titles)
})

test('alone they are a list, and an address that is none says so', async () => {
  serve({ 'GET /api/tools': [belt, flex] })
  showAt('/bench/tools/dowsing', '/bench/tools/:tool?', <ToolsPage />)
  expect(await screen.findByText(/no such calculator/)).toBeInTheDocument()
  expect(screen.getAllByRole('link').map((l) => l.getAttribute('href'))).toEqual(['/bench/tools/belt', '/bench/tools/flex'])
})

const PICTURES = [
  [{ kind: 'band', value: 11.58, u: 0.05, low: 11.6, high: 12.3, unit: 'voltage', values: [11.58, null] }, /Reads 11.58; the limit is 11.6 to 12.3/],
  [{ kind: 'band', value: null, u: 0, low: null, high: 1, unit: 'resistance', values: [null] }, /Open/],
  [{ kind: 'ohms', ohm: 0.5, blow: 4 }, /0.5 ohm; a short is under 8 ohm, doubtful to 20/],
  [{ kind: 'ohms', ohm: null, blow: 4 }, /Not read/],
  [{ kind: 'dial', unit: 'Ω', low: 690, high: 840, strong: 630, stops: [{ value: 950, deg: 0, passes: 0, tries: 0 }], turn_deg: -5 }, /Stands at 950 Ω.*limit 630.*5 degrees anticlockwise/],
  [{ kind: 'belt', motor: 6, gear: 28, centres: 46, section: 1.2, strain: -0.01 }, /it hangs/],
  [{ kind: 'belt', motor: 6, gear: 28, centres: 46, section: 1.2, strain: 0.1 }, /stretched 10.0 %/],
  [{ kind: 'switch', at_rest: 'open', presses: [{ closes: true, travel: 55, ohm: 0.2 }, { closes: false, travel: null, ohm: null }] }, /1 of 2 presses/],
  [{ kind: 'flex', tracks: 6, next: ['side', 2, 3], found: null, done: [['through', 1, 1, true]] }, /6 tracks; 1 readings closed, 0 open/],
  [{ kind: 'pads', gap: 1.6, span: 3.4, pad: 1.6, body: 3, width: 1.5 }, /body 3 mm/],
  [{ kind: 'tilt', before: [0, 0.2], after: [0, 0.1], tolerance: 0.45 }, /0.20 degrees at worst, 0.10 with the shim; it may 0.45/],
  [{ kind: 'capacitors', places: [{ name: 'C1', part: null, polar: true, seen: 0 }] }, /0 of 1 places/],
  [{ kind: 'trims', names: ['Bias'], errors: [[2], [0.5]] }, /Bias 2.0, 0.5/],
] as const

test.each(PICTURES)('a picture says its facts in words: %o', (picture, says) => {
  showAt('/x', '/x', <Picture picture={picture as unknown as Record<string, unknown>} />)
  expect(screen.getByRole('img')).toHaveAccessibleName(says)
})

const meter = { id: 3, name: 'Bench 1', address: 'x', functions: { resistance: { pct: 0.5, digits: 3, resolution: 0.1 } }, leads_ohm: 0.2, is_here: true }
const ohms: Tool = { ...belt, id: 'reading', fields: [field('quantity', { kind: 'choice', choices: [{ id: 'resistance', name: 'Ohms' }] }), field('values', { kind: 'quantities', quantity: '*', unit: '' }), field('pct', { kind: 'number', optional: true }), field('digits', { kind: 'number', optional: true }), field('resolution', { optional: true }), field('leads', { optional: true })] } // prettier-ignore

const taking = (value: string, holds = false) => ({ value, shown: value.replace('ohm', 'Ω'), holds, pct: 0.5, digits: 3, resolution: 0.1, leads_ohm: 0.2 })
const [OHMS, READ] = [() => showAt('/x', '/x', <Calculator tool={ohms} />), { name: 'Read Bench 1' }]

test('a meter is read until it holds, fills the boxes and says how sure it is', async () => {
  const values = ['700 ohm', '748 ohm', '748 ohm', '749 ohm'] // prettier-ignore
  const sent = serve({ 'GET /api/meters': [meter], 'POST /api/meters/3/read': () => taking(values.shift()!, values.length === 0), 'POST /api/tools/reading': { told, faults: [] } })
  OHMS()
  expect(screen.queryByRole('button', READ)).not.toBeInTheDocument()
  await userEvent.click(screen.getByLabelText('Ohms'))
  await userEvent.click(await screen.findByRole('button', READ))
  await waitFor(() => expect(sent.at(-1)?.body).toEqual({ inputs: { quantity: 'resistance', values: ['748 ohm', '748 ohm', '749 ohm'], pct: '0.5', digits: '3', resolution: '0.1 Ω', leads: '0.2 Ω' } }))
  expect(sent.filter((x) => x.path.endsWith('/read')).at(-1)?.body).toMatchObject({ before: ['748 ohm', '748 ohm'] })
})

test('a meter that does not answer leaves the field for typing; one that will not stand still can be stopped', async () => {
  let answer: unknown = new Refusal('The meter is silent.', { reason: 'silent' }, 409)
  serve({ 'GET /api/meters': [meter], 'POST /api/meters/3/read': () => answer, 'POST /api/tools/reading': { told, faults: [] } })
  OHMS()
  await userEvent.click(screen.getByLabelText('Ohms'))
  await userEvent.click(await screen.findByRole('button', READ))
  expect(await screen.findByRole('alert')).toHaveTextContent('The meter is silent. The field stays for typing.')
  answer = new Promise(() => undefined)
  await userEvent.click(screen.getByRole('button', READ))
  expect(screen.getByText(/hold the tips still/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Stop' }))
  expect(screen.getByRole('button', READ)).toBeInTheDocument()
})

test('a meter on the bench’s own computer is asked over the browser’s serial line', async () => {
  const asked: string[] = []
  const port = {
    open: vi.fn(async () => undefined),
    close: vi.fn(async () => undefined),
    get readable() {
      return new ReadableStream<Uint8Array>({ start: (c) => c.enqueue(new TextEncoder().encode('+7.48E+02\r\n')) })
    },
    get writable() {
      return new WritableStream<Uint8Array>({ write: (chunk) => void asked.push(new TextDecoder().decode(chunk)) })
    },
  }
  vi.stubGlobal('navigator', Object.assign(Object.create(navigator), { serial: { requestPort: async () => port } }))
  const sent = serve({ 'GET /api/meters': [], 'POST /api/meters/line': { value: '748 ohm', shown: '748 Ω', holds: true, pct: null, digits: null, resolution: null, leads_ohm: null }, 'POST /api/tools/reading': { told, faults: [] } })
  OHMS()
  await userEvent.click(screen.getByLabelText('Ohms'))
  await userEvent.click(await screen.findByRole('button', { name: 'Read a meter on this computer' }))
  await waitFor(() => expect(sent.at(-1)?.body).toEqual({ inputs: { quantity: 'resistance', values: ['748 ohm'] } }))
  expect(asked).toEqual(['MEAS:RES?\n'])
  expect(sent.find((x) => x.path.endsWith('/line'))?.body).toMatchObject({ text: '+7.48E+02\r', before: [] })
  expect(port.close).toHaveBeenCalled()
  vi.unstubAllGlobals()
})

test('the same points before stand under the reading, whole for this unit and hollow for others', async () => {
  const readings = [{ tag: 'K-2', at: '2026-11-01T09:00:00Z', value: 741, is_mine: false }, { tag: 'K-1', at: '2026-11-05T09:00:00Z', value: 750, is_mine: true }] // prettier-ignore
  serve({ 'POST /api/tools/reading': { told, faults: [] }, 'GET /api/jobs/K-1/run': { readings, says: '2 read before, 745.5 Ω in the middle.', median: 745.5, low: 700, high: 800 } })
  showAt('/x', '/x', <Calculator tool={ohms} tag="K-1" start={{ name: 'DVD', inputs: { quantity: 'resistance' }, question: '' }} />)
  expect(await screen.findByRole('img', { name: '2 read before, 745.5 Ω in the middle.' })).toBeInTheDocument()
  expect(screen.getByText(/Last on K-1/)).toBeInTheDocument()
})

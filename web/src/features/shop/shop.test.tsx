import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import { Refusal, serve, showAt, type Sent } from '@/lib/tests/server'
import { Archive } from './archive'
import { FiguresForm } from './figures'
import { Instruments } from './instruments'
import { People } from './people'

const figures = {
  version: 4, name: 'Quayside', place: 'Tern Steps 4', phone: '', terms: '', currency: 'EUR', time_zone: 'UTC', price_cents_per_min: 90, cost_cents_per_min: 60, day_cents: 120,
  late_day_cents: 300, give_up_cents: 15000, damage_cents: 6000, return_cents: 7000, guarantee_days: 90, opening: 'Mon-Fri 9:00-17:00', closed_days: '', benches: 2, without_iron: 0, label_columns: 2, label_rows: 7,
  traces: [{ about: 'shop', field: 'day_cents', was: 100, now: 120, at: '2026-11-20T09:00:00Z', by: 'Ida' }, { about: 'shop', field: 'scope', was: true, now: false, at: '2026-11-19T09:00:00Z', by: 'Ida' }],
} // prettier-ignore
const nia = { username: 'nia', shown_name: 'Nia Osk', role: 'counter', is_active: true, has_first_password: true, last_login: null }
const staff = { people: [nia], traces: [] }
const manager = ['shop']

const save = () => userEvent.click(screen.getByRole('button', { name: 'Save' }))
const type = async (label: RegExp, text: string) => {
  const field = await screen.findByLabelText(label)
  await userEvent.clear(field)
  await userEvent.type(field, text)
}

test('only what was changed is sent, as numbers, on the version that was seen', async () => {
  const sent = serve({ 'GET /api/shop': figures, 'POST /api/shop': { ...figures, version: 5 } })
  showAt('/shop', '/shop', <FiguresForm />, manager)
  await type(/A minute is charged at/, '1,20')
  await type(/Longest guarantee/, '60')
  await save()
  await waitFor(() => expect(sent[0]?.body).toMatchObject({ version: 4, price_cents_per_min: 120, guarantee_days: 60 }))
  expect(Object.keys(sent[0]?.body ?? {})).toHaveLength(4)
})

test.each([
  [/A minute is charged at/, 'dear', 'An amount'],
  [/Longest guarantee/, '3.5', 'A whole number of days'],
  [/Currency/, 'euro', 'Three letters'],
  [/People at the bench/, '0', 'A whole number from 1 to 20.'],
  [/do not solder/, '20', 'A whole number from 0 to 19.'],
])('%s takes no %s and says what it wants', async (label, text, says) => {
  serve({ 'GET /api/shop': figures })
  showAt('/shop', '/shop', <FiguresForm />, manager)
  await type(label, text)
  expect(screen.getByRole('alert')).toHaveTextContent(says)
  expect(screen.getByRole('button', { name: 'Save' })).toBeDisabled()
})

test('a refusal is said, what was typed stays, and it can be left as it was', async () => {
  serve({ 'GET /api/shop': figures, 'POST /api/shop': new Refusal('Somebody else changed the shop’s figures meanwhile.', {}, 409) })
  showAt('/shop', '/shop', <FiguresForm />, manager)
  await type(/^Name/, 'Lamp Street')
  await save()
  expect(await screen.findByText(/Somebody else changed/)).toBeInTheDocument()
  expect(screen.getByLabelText(/^Name/)).toHaveValue('Lamp Street')
  await userEvent.click(screen.getByRole('button', { name: 'Leave it as it was' }))
  expect(screen.getByLabelText(/^Name/)).toHaveValue('Quayside')
})

test('after somebody else changed them, what was typed stays and goes out on what stands now', async () => {
  const shop = { ...figures }
  const change = ({ body }: Sent) => (body.version === 5 ? { ...shop, version: 6 } : new Refusal('Somebody else changed the shop’s figures meanwhile.', {}, 409))
  const sent = serve({ 'GET /api/shop': () => ({ ...shop }), 'POST /api/shop': change })
  showAt('/shop', '/shop', <FiguresForm />, manager)
  await type(/^Name/, 'Lamp Street')
  Object.assign(shop, { version: 5, place: 'Mole 2' })
  await save()
  await waitFor(() => expect(screen.getByLabelText(/^Address/)).toHaveValue('Mole 2'))
  expect(screen.getByLabelText(/^Name/)).toHaveValue('Lamp Street')
  await save()
  await waitFor(() => expect(sent[1]?.body).toMatchObject({ version: 5, name: 'Lamp Street' }))
})

test('each change says what it was, in words', async () => {
  serve({ 'GET /api/shop': figures })
  showAt('/shop', '/shop', <FiguresForm />, manager)
  expect(await screen.findByText(/€1.20/)).toHaveTextContent('A day’s wait costs €1.20 (was €1)')
  expect(screen.getByText(/is not here/)).toHaveTextContent('scope is not here (was is here)')
})

test('somebody new gets a role and a first password', async () => {
  const sent = serve({ 'GET /api/people': staff, 'POST /api/people': staff })
  showAt('/shop/people', '/shop/people', <People />, manager)
  await userEvent.click(await screen.findByRole('button', { name: 'Add somebody' }))
  const dialog = within(screen.getByRole('dialog'))
  await userEvent.type(dialog.getByLabelText('Name'), 'Tove Lund')
  await userEvent.type(dialog.getByLabelText('Signs in as'), 'tove')
  await userEvent.click(dialog.getByLabelText(/^Technician/))
  expect(dialog.getByRole('button', { name: 'Add' })).toBeDisabled()
  await userEvent.type(dialog.getByLabelText('First password'), 'three-plain-words{Enter}')
  await waitFor(() => expect(sent[0]?.body).toMatchObject({ name: 'Tove Lund', username: 'tove', role: 'technician', password: 'three-plain-words' }))
})

test('a change leaves the password out unless one was typed; letting go is one press', async () => {
  const sent = serve({ 'GET /api/people': staff, 'POST /api/people/nia': staff })
  showAt('/shop/people', '/shop/people', <People />, manager)
  expect(await screen.findByText('first password')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Change' }))
  await userEvent.click(screen.getByLabelText(/^Manager/))
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => expect(sent[0]?.body).toMatchObject({ name: 'Nia Osk', role: 'manager' }))
  expect(sent[0]?.body).not.toHaveProperty('password')
  await userEvent.click(screen.getByRole('button', { name: 'Let go' }))
  await waitFor(() => expect(sent[1]?.body).toMatchObject({ is_active: false }))
})

const has = (is_there: boolean) => ({ instruments: [{ id: 'scope', name: 'Oscilloscope', is_there }] })

test('a manager says that an instrument is here; whoever may not sees what is', async () => {
  const sent = serve({ 'GET /api/instruments': has(false), 'POST /api/instruments': has(true) })
  showAt('/shop/has', '/shop/has', <Instruments />, manager)
  await userEvent.click(await screen.findByRole('checkbox', { name: /Oscilloscope/ }))
  await waitFor(() => expect(sent[0]?.body).toMatchObject({ instrument: 'scope', is_there: true }))
})

test('whoever may not change it sees what is here', async () => {
  serve({ 'GET /api/instruments': has(true) })
  showAt('/shop/has', '/shop/has', <Instruments />, [])
  expect(await screen.findByRole('checkbox', { name: /Oscilloscope/ })).toBeDisabled()
  expect(screen.queryByRole('link', { name: 'People' })).toBeNull()
})

test('a meter is set up after somebody asked who answers there', async () => {
  const sent = serve({ 'GET /api/instruments': { instruments: [] }, 'GET /api/meters': [], 'POST /api/meters': [], 'POST /api/meters/try': { says: 'BENCH,METER' } })
  showAt('/shop/has', '/shop/has', <Instruments />, manager)
  await userEvent.click(await screen.findByRole('button', { name: 'Set one up' }))
  await userEvent.type(screen.getByLabelText('Name'), 'Bench 1')
  await userEvent.type(screen.getByLabelText('Address'), 'ASRL1::INSTR')
  await userEvent.click(screen.getByRole('button', { name: 'Who answers there?' }))
  expect(await screen.findByText('BENCH,METER')).toBeInTheDocument()
  await userEvent.click(screen.getByLabelText('Volts'))
  await userEvent.type(screen.getByLabelText('each worth, in Ω'), '0,1')
  await userEvent.type(screen.getByLabelText(/Tips touched together/), '0.2')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => expect(sent.at(-1)?.body).toMatchObject({ name: 'Bench 1', address: 'ASRL1::INSTR', functions: { resistance: { pct: 0.5, digits: 3, resolution: 0.1 } }, leads_ohm: 0.2, is_here: true }))
})

const upload = async () => userEvent.upload(await screen.findByLabelText(/A shop’s file/), new File(['zip'], 'shop.zip', { type: 'application/zip' }))

test('a file that is taken in says what was added, what was here already, and what it lacks', async () => {
  const tables = [{ name: 'jobs', says: 'jobs', added: 12, alike: 0 }, { name: 'people', says: 'people', added: 0, alike: 3 }]
  serve({ 'POST /api/archive': { tables, missing: ['photos/a.jpg'] } })
  showAt('/shop/archive', '/shop/archive', <Archive />, manager)
  await upload()
  expect(within(await screen.findByRole('status')).getAllByRole('row').map((r) => r.textContent)).toEqual(['WhatAddedHere already', 'jobs120', 'people03'])
  expect(screen.getByText(/not in the file: 1/)).toBeInTheDocument()
})

test('a file that is refused says where, and that nothing was changed', async () => {
  serve({ 'POST /api/archive': new Refusal('parts.jsonl, line 3/count: expected int, got a text', {}, 422) })
  showAt('/shop/archive', '/shop/archive', <Archive />, manager)
  await upload()
  expect(await screen.findByRole('alert')).toHaveTextContent(/Nothing was changed.*line 3/)
})

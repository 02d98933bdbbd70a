import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, test } from 'vitest'
import type { DonorDetail, Order, Part, PartDetail, Wanted } from '@/api/types'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { setLabelSheet } from '@/lib/label-sheet'
import { ShelfAway } from './away'
import { ShelfComing } from './coming'
import { DonorScreen } from './donor-screen'
import { ShelfHere } from './here'
import { PartScreen } from './part-screen'
import { ShelfWanted } from './wanted'

const part = (more: Partial<Part> = {}): Part => ({
  tag: 'P-0001', level: 'pickup', level_name: 'Bare pickup', code: 'VL-30', name: 'Pickup VL-30', count: 2, health: 'new', works: [], fails: [], is_complete: false, lot: '', place: 'Drawer A2', piece_cents: 2400, origin: '', owner_job: '', away_since: null, ...more,
}) // prettier-ignore
const detail = (more: Partial<PartDetail> = {}): PartDetail => ({ ...part(), around_mm: null, section_mm: null, functions: ['reads'], checks: [], trail: [], holders: [], fits: [], ...more })
const form = { tables: [], levels: [{ id: 'pickup', name: 'Bare pickup', rank: 'pickup', functions: ['reads'], families: ['slot'] }], origins: {}, verdicts: {}, features: [], repairs: {} }
const calm = { 'GET /api/shelf/away': [], 'GET /api/sheet-form': form }
const click = async (name: string | RegExp) => userEvent.click(await screen.findByRole('button', { name }))

describe('what is here', () => {
  test('each part says count, health, place and price; labels of all are printed, the first so many left out', async () => {
    serve({ ...calm, 'GET /api/shelf/parts': [part(), part({ tag: 'P-0012', origin: 'D-0002', health: 'proven', works: ['spins'] })] })
    showAt('/shelf', '/shelf', <ShelfHere />)
    expect(await screen.findByRole('row', { name: /P-0001 Pickup VL-30.*2 new Drawer A2 €24/ })).toBeInTheDocument()
    expect(screen.getByRole('row', { name: /out of D-0002.*proven.*works: spins/ })).toBeInTheDocument()
    setLabelSheet({ columns: 2, rows: 7 })
    await click('Print labels of these 2')
    expect(screen.getByRole('link', { name: 'Open the PDF' })).toHaveAttribute('href', '/api/labels.pdf?tags=P-0001&tags=P-0012&columns=2&rows=7&skip=0')
    await userEvent.type(screen.getByLabelText('Used up already'), '9')
    expect(screen.getByRole('link', { name: 'Open the PDF' })).toHaveAttribute('href', expect.stringContaining('skip=09'))
    await userEvent.type(screen.getByLabelText('Labels across'), '0')
    expect(screen.queryByRole('link', { name: 'Open the PDF' })).not.toBeInTheDocument()
  })

  test('an empty shelf says what to do, and somebody who may not is offered nothing', async () => {
    serve({ ...calm, 'GET /api/shelf/parts': [] })
    showAt('/shelf', '/shelf', <ShelfHere />, [])
    expect(await screen.findByText('The shelf is empty')).toBeInTheDocument()
    expect(screen.queryByRole('button', { name: 'Put a part on the shelf' })).not.toBeInTheDocument()
  })

  test('a server that does not answer is told, with a way to ask again', async () => {
    serve(calm)
    showAt('/shelf', '/shelf', <ShelfHere />)
    expect(await screen.findByRole('alert')).toHaveTextContent('Could not fetch the shelf')
    expect(screen.getByRole('button', { name: 'Try again' })).toBeInTheDocument()
  })

  test('a part is put on the shelf by the pack, with amounts that are amounts', async () => {
    const sent = serve({ ...calm, 'GET /api/shelf/parts': [], 'POST /api/shelf/parts': detail() })
    const router = showAt('/shelf', '/shelf', <ShelfHere />)
    await click('Put a part on the shelf')
    const dialog = within(screen.getByRole('dialog'))
    await dialog.findByRole('option', { name: 'Bare pickup' })
    await userEvent.selectOptions(dialog.getByRole('combobox', { name: /Level/ }), 'pickup')
    await userEvent.type(dialog.getByLabelText('Code'), 'VL-30')
    await userEvent.type(dialog.getByLabelText('Price of a pack, €'), 'much')
    expect(dialog.getByRole('alert')).toHaveTextContent('An amount like 24')
    await userEvent.clear(dialog.getByLabelText('Price of a pack, €'))
    await userEvent.type(dialog.getByLabelText('Price of a pack, €'), '12,50')
    await userEvent.click(dialog.getByRole('button', { name: 'Put it on the shelf' }))
    await screen.findByText('another place')
    expect(sent[0]?.body).toMatchObject({ level: 'pickup', code: 'VL-30', count: 1, pack_size: 1, pack_cents: 1250, health: 'new' })
    expect(router.state.location.pathname).toBe('/shelf/parts/P-0001')
  })
})

describe('one part', () => {
  const show = (found: PartDetail, more = {}) => {
    const sent = serve({ ...calm, 'GET /api/shelf/parts/P-0001': found, ...more })
    showAt('/shelf/parts/P-0001', '/shelf/parts/:tag', <PartScreen />)
    return sent
  }

  test('says where it fits and where it cannot, who has pieces, and what happened', async () => {
    const fit = { level: 'pickup', level_name: 'Bare pickup', code: 'VL-30', variant: 'VM-S41', verdict: 'transfers' as const, verdict_name: 'fits with transfers', reasons: ['its sheet names it'], source: "shop's own", transfers: [], shows: [] }
    show(detail({ fits: [fit, { ...fit, variant: 'BW-T9', verdict: 'no', verdict_name: 'does not fit', source: 'both sheets' }], holders: [{ job: 'K-0104', by: 'Bram', at: '2026-11-20T09:00:00Z' }], trail: [{ text: '1 of O-0001', by: 'Bram', at: '2026-11-19T09:00:00Z' }] }))
    expect(await screen.findByText('fits with transfers')).toBeInTheDocument()
    expect(screen.getByText(/Cannot fit, by what both drives are:/)).toHaveTextContent('BW-T9')
    expect(screen.getByRole('link', { name: 'K-0104' })).toBeInTheDocument()
    expect(screen.getByText(/1 of O-0001/)).toBeInTheDocument()
  })

  test("an owner's part says whose it is, and counts as nothing", async () => {
    show(detail({ owner_job: 'K-0102', count: 0, away_since: '2026-11-20T09:00:00Z' }))
    expect(await screen.findByText('Belongs to the owner of K-0102')).toBeInTheDocument()
    expect(screen.queryByRole('button', { name: 'Throw away' })).not.toBeInTheDocument()
    expect(screen.queryByLabelText('There should be at least')).not.toBeInTheDocument()
  })

  test('what it does is written down function by function; nothing seen is nothing to write', async () => {
    const sent = show(detail(), { 'POST /api/shelf/parts/P-0001/checks': detail() })
    await click('Write down what it does')
    const dialog = within(screen.getByRole('dialog'))
    expect(dialog.getByRole('button', { name: 'Write it down' })).toBeDisabled()
    await userEvent.click(dialog.getByLabelText('Fails'))
    await userEvent.click(dialog.getByRole('button', { name: 'Write it down' }))
    expect(sent[0]?.body).toMatchObject({ seen: { reads: false }, unit: '' })
  })

  test('more than there are cannot be thrown away, and a refusal stays in sight', async () => {
    show(detail(), { 'POST /api/shelf/parts/P-0001/scrap': new Refusal('P-0001 has 1 here, not 2.') })
    await click('Throw away')
    const dialog = within(screen.getByRole('dialog'))
    await userEvent.type(dialog.getByLabelText('Why'), 'bent')
    await userEvent.clear(dialog.getByLabelText('How many of 2'))
    await userEvent.type(dialog.getByLabelText('How many of 2'), '3')
    expect(dialog.getByRole('button', { name: 'Throw away' })).toBeDisabled()
    await userEvent.clear(dialog.getByLabelText('How many of 2'))
    await userEvent.type(dialog.getByLabelText('How many of 2'), '2')
    await userEvent.click(dialog.getByRole('button', { name: 'Throw away' }))
    expect(await dialog.findByText('P-0001 has 1 here, not 2.')).toBeInTheDocument()
  })

  test('a minimum is a whole number', async () => {
    const sent = show(detail(), { 'POST /api/shelf/minimum': { short: [], scarce: [] } })
    const field = await screen.findByLabelText('There should be at least')
    await userEvent.type(field, '2.5')
    expect(screen.getByRole('button', { name: 'Set' })).toBeDisabled()
    await userEvent.clear(field)
    await userEvent.type(field, '4')
    await click('Set')
    expect(await screen.findByRole('status')).toHaveTextContent('Set.')
    expect(sent[0]?.body).toMatchObject({ level: 'pickup', code: 'VL-30', count: 4 })
  })

  test('a belt has a size, by which the calculator finds it', async () => {
    const sent = show(detail({ level: 'belt', code: 'BELT-71' }), { 'POST /api/shelf/parts/P-0001/size': detail({ level: 'belt', around_mm: 142, section_mm: 1.2 }) })
    await userEvent.type(await screen.findByLabelText('Around, lying free, in mm'), '14')
    await userEvent.type(screen.getByLabelText('Section, in mm'), '1,2')
    expect(screen.getByText('From 20 to 600 mm.')).toBeInTheDocument()
    expect(screen.getByRole('button', { name: 'Say its size' })).toBeDisabled()
    await userEvent.type(screen.getByLabelText('Around, lying free, in mm'), '2')
    await click('Say its size')
    expect(sent[0]?.body).toMatchObject({ around_mm: 142, section_mm: 1.2 })
  })
})

describe('a donor', () => {
  const piece = (level: string, name: string, functions: Record<string, 'works' | 'fails' | 'suspect' | 'untested'>, gone = '') => ({ level, level_name: name, code: 'X', functions, health: 'unknown', gone })
  const donor: DonorDetail = {
    tag: 'D-0003', variant: 'BW-T9', family: 'tray', sheet_id: 1, place: 'Rack 2', origin: 'read errors', left: 2, of: 4, is_scrapped: false, bought_cents: 1200, checks: [], trail: [], parts: [],
    pieces: [piece('drive', 'Whole drive', { reads: 'fails' }), piece('pickup', 'Bare pickup', { reads: 'suspect' }), piece('spindle_motor', 'Spindle motor', { spins: 'works' }), piece('belt', 'Belt', { loads: 'works' }, 'harvested as P-0020')],
  } // prettier-ignore

  const show = (found: DonorDetail, more = {}) => {
    const sent = serve({ ...calm, 'GET /api/shelf/donors/D-0003': found, ...more })
    showAt('/shelf/donors/D-0003', '/shelf/donors/:tag', <DonorScreen />)
    return sent
  }

  test('the plan says in words what it draws', async () => {
    show(donor)
    const plan = await screen.findByRole('img', { name: /pulled apart/ })
    expect(plan).toHaveAccessibleName('D-0003 pulled apart: Whole drive fails, Bare pickup suspect, Spindle motor works, Belt gone.')
  })

  test('what is gone says where to, and only what is left can be harvested', async () => {
    show(donor)
    expect(await screen.findByText('harvested as P-0020')).toBeInTheDocument()
    expect(screen.getAllByRole('button', { name: /Harvest/ }).map((b) => b.getAttribute('aria-label'))).toEqual(['Harvest the bare pickup', 'Harvest the spindle motor'])
  })

  test('a piece is harvested to its place', async () => {
    const sent = show(donor, { 'POST /api/shelf/donors/D-0003/harvest': detail({ tag: 'P-0021' }) })
    await click('Harvest the spindle motor')
    await userEvent.type(screen.getByLabelText('Where it will lie'), 'Drawer B3')
    await click('Put it on the shelf')
    await screen.findByText('another place')
    expect(sent[0]?.body).toMatchObject({ level: 'spindle_motor', place: 'Drawer B3' })
  })

  test('a donor that was thrown away offers nothing', async () => {
    show({ ...donor, is_scrapped: true })
    expect(await screen.findByText('Thrown away')).toBeInTheDocument()
    expect(screen.queryByRole('button', { name: /Harvest/ })).not.toBeInTheDocument()
  })
})

describe('wanted, coming, away', () => {
  const wanted: Wanted = {
    short: [{ level: 'switch', code: 'VK-1', name: 'Lever switch', here: 5, coming: 0, least: 8 }],
    scarce: [{ level: 'pickup', level_name: 'Bare pickup', here: 1, wanted: 2, given: [{ job: 'K-0104', piece: 'P-0001', reason: 'promised in 4 days' }], waits: [{ job: 'K-0114', promised_on: null }], next_tag: '', next_days: 7 }],
  }

  test('who gets the scarce part stands with its reason, and who waits with for what', async () => {
    serve({ ...calm, 'GET /api/shelf/wanted': wanted })
    showAt('/shelf/wanted', '/shelf/wanted', <ShelfWanted />)
    expect(await screen.findByText('promised in 4 days')).toBeInTheDocument()
    expect(screen.getByText(/nothing is ordered; a new order takes about 7 days/)).toBeInTheDocument()
  })

  test('what has run low is ordered from there, with its code filled in', async () => {
    const sent = serve({ ...calm, 'GET /api/shelf/wanted': wanted, 'POST /api/shelf/orders': [] })
    showAt('/shelf/wanted', '/shelf/wanted', <ShelfWanted />)
    await click('Order it')
    const dialog = within(screen.getByRole('dialog'))
    expect(dialog.getByLabelText('Code')).toHaveValue('VK-1')
    await userEvent.type(dialog.getByLabelText('From whom'), 'Lantern')
    await userEvent.type(dialog.getByLabelText('Price of a pack, €'), '6.20')
    await userEvent.click(dialog.getByRole('button', { name: 'Write the order down' }))
    expect(sent[0]?.body).toMatchObject({ supplier: 'Lantern', level: 'switch', code: 'VK-1', packs: 1, pack_cents: 620 })
  })

  const ordering = async (supplier: string) => {
    const known = { 'GET /api/shelf/suppliers': ['Harbour Parts'], 'GET /api/shelf/codes': [{ level: 'switch', code: 'VK-1', name: '' }, { level: 'pickup', code: 'VL-30', name: '' }] }
    const sent = serve({ ...calm, ...known, 'GET /api/shelf/wanted': wanted, 'POST /api/shelf/orders': [] })
    showAt('/shelf/wanted', '/shelf/wanted', <ShelfWanted />)
    await click('Order it')
    const dialog = within(screen.getByRole('dialog'))
    await waitFor(() => expect(document.querySelector('option[value="VK-1"]')).not.toBeNull())
    await userEvent.type(dialog.getByLabelText('From whom'), supplier)
    await userEvent.type(dialog.getByLabelText('Price of a pack, €'), '6.20')
    await userEvent.click(dialog.getByRole('button', { name: 'Write the order down' }))
    return { sent, dialog }
  }

  test('a supplier that nobody has ordered from is asked about before it is made', async () => {
    const { sent, dialog } = await ordering('Harbor Parts')
    expect(dialog.getByText('New here: Harbor Parts as a supplier')).toBeVisible()
    expect(sent).toEqual([])
    await userEvent.click(dialog.getByRole('button', { name: 'It is new: write the order down' }))
    expect(sent[0]?.body).toMatchObject({ supplier: 'Harbor Parts' })
  })

  test('what is known is not asked about, and the codes of its level are offered', async () => {
    const { sent } = await ordering('harbour parts')
    expect(sent[0]?.body).toMatchObject({ supplier: 'harbour parts' })
    expect(document.querySelector('option[value="VL-30"]')).toBeNull()
  })

  const order: Order = { tag: 'O-0009', supplier: 'Lantern', level_name: 'Bare pickup', code: 'VL-30', name: 'Pickup VL-30', count: 2, came: 0, piece_cents: 2600, ordered_on: '2026-11-22', waited_days: 3, half_days: 0.4, most_days: 8.2, past: 0 }

  test('an order says its range, and that it rests on nothing if it does', async () => {
    serve({ ...calm, 'GET /api/shelf/orders': [order] })
    showAt('/shelf/coming', '/shelf/coming', <ShelfComing />)
    expect(await screen.findByText('within a day')).toBeInTheDocument()
    expect(screen.getAllByText('in 8 days')).toHaveLength(2) // at the bar, and at the end of the scale
    expect(screen.getByText('3 days ago')).toBeInTheDocument()
    expect(screen.getByText(/a supplier without a past here/)).toBeInTheDocument()
  })

  test.each([
    ['It is here', 'Put them on the shelf', '/arrive', { place: '' }],
    ['Will not come', 'Write it down', '/cancel', { why: 'sold out' }],
  ])('%s is written once', async (button, save, path, body) => {
    const sent = serve({ ...calm, 'GET /api/shelf/orders': [order], 'POST /api/shelf/orders/O-0009/arrive': detail(), 'POST /api/shelf/orders/O-0009/cancel': [] })
    showAt('/shelf/coming', '/shelf/coming', <ShelfComing />)
    await click(button)
    if (path === '/cancel') await userEvent.type(screen.getByLabelText('Why'), 'sold out')
    await click(save)
    expect(sent[0]?.path).toContain(path)
    expect(sent[0]?.body).toMatchObject(body)
  })

  test('a mistyped date of an order that came is put right, and no date is none', async () => {
    const past = { tag: 'O-0004', supplier: 'Lantern', name: 'Pickup VL-30', count: 2, ordered_on: '2025-09-02', arrived_on: '2026-09-16' }
    const sent = serve({ ...calm, 'GET /api/shelf/orders': [], 'GET /api/shelf/past-orders': [past], 'POST /api/shelf/orders/O-0004/dates': [] })
    showAt('/shelf/coming', '/shelf/coming', <ShelfComing />)
    await click('Dates wrong')
    fireEvent.change(screen.getByLabelText('Ordered on'), { target: { value: '' } })
    const save = screen.getByRole('button', { name: 'Put the dates right' })
    await waitFor(() => expect(save).toBeDisabled())
    fireEvent.change(screen.getByLabelText('Ordered on'), { target: { value: '2026-09-02' } })
    await waitFor(() => expect(save).toBeEnabled())
    await userEvent.click(save)
    expect(sent[0]?.body).toMatchObject({ ordered_on: '2026-09-02', arrived_on: '2026-09-16' })
  })

  test('what is out of its unit is counted in the menu and says whose it is', async () => {
    serve({ ...calm, 'GET /api/shelf/away': [part({ tag: 'K-0102-A', owner_job: 'K-0102', place: 'tray 3', away_since: new Date().toISOString() })] })
    showAt('/shelf/away', '/shelf/away', <ShelfAway />)
    expect(await screen.findByRole('link', { name: 'Out of its unit 1' })).toBeInTheDocument()
    expect(screen.getByText(/lies tray 3/)).toBeInTheDocument()
    expect(screen.getByText('since today')).toBeInTheDocument()
  })
})

import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, test } from 'vitest'
import type { Fit, SheetDetail, SheetForm } from '@/api/types'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { FitsScreen } from './fits'
import { Gallery } from './gallery'
import { SheetEditor } from './sheet-editor'
import { SheetScreen } from './sheet-screen'

const drive = { maker: 'Vess', console: 'Orlo', revision: 'C', variant: 'VM-1', family: 'slot', pairing: 'board', has_trimmer: true, has_belt: false, lid_switches: 0, has_electrolytics: false, has_alignment: false, motor_soldered: false, fuse_rating: '1.5 A fast', wavelengths: [650], label_faces: {} }
const column = { unit: '', low: 0, high: 0, choices: [], optional: false }
const form: SheetForm = {
  console_tables: [],
  levels: [
    { id: 'pickup', name: 'Bare pickup', rank: 'pickup', functions: ['reads'], families: ['slot'] },
    { id: 'belt', name: 'Belt', rank: 'part', functions: ['loads'], families: ['tray'] },
  ],
  features: [{ id: 'loader', ask: 'How does a disc go in?', how: '', where: 'outside', values: [{ id: 'slot', label: 'Into a slit' }] }],
  repairs: { slot: [{ id: 'replace_pickup', label: 'Replace the pickup' }] },
  origins: { maker: "maker's document", shop: "shop's own", seller: "seller's claim", hearsay: 'hearsay' },
  verdicts: { fits: 'fits', transfers: 'fits with transfers', part: 'fits in part', no: 'does not fit' },
  tables: [
    {
      id: 'trimmers', title: 'Trimmers', about: 'bands',
      columns: [{ ...column, id: 'name', name: 'Name', kind: 'text' }, { ...column, id: 'low_ohm', name: 'From', kind: 'number', unit: 'Ω', low: 1, high: 9000 }, { ...column, id: 'origin', name: 'From', kind: 'choice', choices: ['maker', 'shop'] }, { ...column, id: 'confidence', name: 'How sure', kind: 'choice', choices: ['sure', 'doubtful'] }, { ...column, id: 'said', name: 'Whose', kind: 'text', optional: true }],
    },
  ],
} // prettier-ignore
const document = {
  format: 'tidy-spindle-sheet', version: 1, maker: 'Vess', console: 'Orlo', revision: 'C',
  drive: { variant: 'VM-1', family: 'slot', pairing: 'board', classes: ['film_dvd'], fuse_rating: '1.5 A fast', reference_times: { film_dvd: { mean_s: 13, sd_s: 1.4, n: 22 } } },
  looks: {}, tables: { trimmers: [{ name: 'DVD', low_ohm: 690, origin: 'shop', confidence: 'doubtful', said: '31 units' }] }, sources: { '*': { origin: 'shop', confidence: 'fair', said: '' } },
} // prettier-ignore
const sheet: SheetDetail = { id: 1, drive, version: 3, classes: ['film_dvd'], also_in: ['Orlo, revision B'], document, is_current: true, is_retired: false, versions: [{ id: 1, version: 3, why: 'measured', by: 'Bram', at: '2026-11-20T09:00:00Z' }], gaps: [{ table: 'fuses', text: 'The board has a fuse; its form and place are not known.' }] }
const calm = { 'GET /api/sheet-form': form, 'GET /api/sheets': [sheet], 'GET /api/sheets/VM-1': sheet }
const click = async (name: string | RegExp) => userEvent.click(await screen.findByRole('button', { name }))

describe('the gallery', () => {
  test('stands by loader family, each drive with its plan and its pairing', async () => {
    serve(calm)
    showAt('/drives', '/drives', <Gallery />)
    const card = await screen.findByRole('link', { name: /VM-1.*Vess Orlo, revision C.*board paired/s })
    expect(card).toHaveAttribute('href', '/drives/VM-1')
    expect(screen.getByRole('heading', { name: /Slot load/ })).toBeInTheDocument()
    expect(screen.queryByRole('heading', { name: /Tray load/ })).not.toBeInTheDocument()
  })

  test('a bad file says where it is bad, and nothing was changed', async () => {
    serve({ ...calm, 'POST /api/sheet-files': new Refusal('/tables/trimmers/0/low_ohm: expected a number', { place: '/tables/trimmers/0/low_ohm' }) })
    showAt('/drives', '/drives', <Gallery />)
    await screen.findByText('Slot load')
    await userEvent.upload(screen.getByLabelText('A drive sheet as a file'), new File(['{'], 'bad.json', { type: 'application/json' }))
    const alert = await screen.findByRole('alert')
    expect(alert).toHaveTextContent('bad.json was not loaded; nothing was changed')
    expect(alert).toHaveTextContent('/tables/trimmers/0/low_ohm')
  })

  test('a good file opens its sheet', async () => {
    serve({ ...calm, 'POST /api/sheet-files': sheet })
    const router = showAt('/drives', '/drives', <Gallery />)
    await screen.findByText('Slot load')
    await userEvent.upload(screen.getByLabelText('A drive sheet as a file'), new File(['{}'], 'good.json', { type: 'application/json' }))
    await screen.findByText('another place')
    expect(router.state.location.pathname).toBe('/drives/VM-1')
  })
})

describe('a sheet', () => {
  test('shows facts and tables with where each comes from, what is lacking, and its versions', async () => {
    serve(calm)
    showAt('/drives/VM-1', '/drives/:variant', <SheetScreen />)
    expect(await screen.findByRole('row', { name: /DVD 690 Ω shop's own, 31 units\s*doubtful/ })).toBeInTheDocument()
    expect(screen.getByRole('row', { name: /film DVD to play 13 s ± 1.4 s, 22 readings/ })).toBeInTheDocument()
    expect(screen.getByText(/its form and place are not known/)).toBeInTheDocument()
    expect(screen.getByText(/also found in Orlo, revision B/)).toBeInTheDocument()
    expect(screen.getByRole('link', { name: 'CSV' })).toHaveAttribute('href', '/api/sheets/VM-1/tables/trimmers')
  })

  test('an older version says so and is not edited', async () => {
    serve({ ...calm, 'GET /api/sheets/VM-1': { ...sheet, version: 2, is_current: false } })
    showAt('/drives/VM-1?version=2', '/drives/:variant', <SheetScreen />)
    expect(await screen.findByText('An older version')).toBeInTheDocument()
    expect(screen.queryByRole('link', { name: 'Edit' })).not.toBeInTheDocument()
  })

  test('a sheet for another variant starts from this one', async () => {
    const sent = serve({ ...calm, 'POST /api/sheets': { ...sheet, drive: { ...drive, variant: 'VM-2' } } })
    const router = showAt('/drives/VM-1', '/drives/:variant', <SheetScreen />)
    await click('A new sheet like this one')
    await userEvent.type(await screen.findByLabelText('Maker'), 'Vess')
    await userEvent.type(screen.getByLabelText('Console'), 'Orlo')
    expect(screen.queryByText('How does a disc go in?')).not.toBeInTheDocument()
    await click('Begin its sheet')
    await waitFor(() => expect(sent[0]?.body).toMatchObject({ maker: 'Vess', console: 'Orlo', like: 'VM-1', family: '', classes: [] }))
    expect(router.state.location.pathname).toBe('/drives/VM-2/edit')
  })

  test('a bare one needs to know how a disc goes in and what it plays', async () => {
    const sent = serve({ ...calm, 'POST /api/sheets': sheet })
    showAt('/drives', '/drives', <Gallery />)
    await click('New drive sheet')
    await userEvent.type(screen.getByLabelText('Maker'), 'Halden')
    await userEvent.type(screen.getByLabelText('Console'), 'Tarn 2')
    await userEvent.click(screen.getByLabelText('A tray slides out'))
    expect(screen.getByRole('button', { name: 'Begin its sheet' })).toBeDisabled()
    await userEvent.click(screen.getByLabelText('film DVD'))
    await click('Begin its sheet')
    await waitFor(() => expect(sent[0]?.body).toMatchObject({ family: 'tray', classes: ['film_dvd'], like: '', variant: '' }))
  })

  test('is taken out of use, and back', async () => {
    const sent = serve({ ...calm, 'POST /api/sheets/VM-1/retired': sheet })
    showAt('/drives/VM-1', '/drives/:variant', <SheetScreen />)
    await click(/^Out of use/)
    await waitFor(() => expect(sent[0]?.body).toMatchObject({ is_retired: true }))
  })
})

describe('the editor', () => {
  const edit = (more = {}) => {
    const sent = serve({ ...calm, ...more })
    return { sent, router: showAt('/drives/VM-1/edit', '/drives/:variant/edit', <SheetEditor />) }
  }
  const cell = () => screen.findByLabelText('Trimmers, row 1, From', { selector: 'input' })

  test('nothing changed is nothing to save; a change can be undone', async () => {
    edit()
    const save = await screen.findByRole('button', { name: 'Save as version 4' })
    expect(save).toBeDisabled()
    await userEvent.type(await cell(), '5')
    expect(save).toBeEnabled()
    await click('Undo')
    expect(await cell()).toHaveValue(690)
    expect(save).toBeDisabled()
  })

  test('it is saved on the version that was seen, with the reason', async () => {
    const { sent, router } = edit({ 'POST /api/sheets/VM-1': sheet })
    await userEvent.type(await cell(), '1')
    await userEvent.type(screen.getByLabelText('What changed, and why'), 'six more units')
    await click('Save as version 4')
    await screen.findByText('another place')
    expect(sent[0]?.body).toMatchObject({ based_on: 3, why: 'six more units', document: { tables: { trimmers: [{ low_ohm: 6901 }] } } })
    expect(router.state.location.pathname).toBe('/drives/VM-1')
  })

  test('a refusal marks the cell, and what was typed stays through a reload', async () => {
    edit({ 'POST /api/sheets/VM-1': new Refusal('expected a number from 1 to 9000', { place: '/tables/trimmers/0/low_ohm' }) })
    await userEvent.type(await cell(), '00')
    await click('Save as version 4')
    expect(await screen.findByText('/tables/trimmers/0/low_ohm')).toBeInTheDocument()
    expect(await cell()).toBeInvalid()
    expect(localStorage.getItem('spindle:sheet:VM-1')).toContain('69000')
  })

  test('a sheet that somebody saved meanwhile is not overwritten', async () => {
    localStorage.setItem('spindle:sheet:VM-1', JSON.stringify({ basedOn: 2, document: { ...document, console: 'Orlo X' } }))
    edit()
    expect(await screen.findByText('The sheet is at version 3 by now')).toBeInTheDocument()
    expect(screen.getByRole('button', { name: 'Save as version 4' })).toBeDisabled()
    await click('Put mine on top of version 3')
    expect(screen.getByRole('button', { name: 'Save as version 4' })).toBeEnabled()
  })

  test('looks, prices and label sides are edited like the rest', async () => {
    const { sent } = edit({ 'POST /api/sheets/VM-1': sheet })
    await userEvent.selectOptions(await screen.findByLabelText('How does a disc go in?'), 'slot')
    await userEvent.selectOptions(screen.getByLabelText('Add a price for'), 'replace_pickup')
    await userEvent.type(screen.getByLabelText('replace_pickup, price in €'), '26')
    await userEvent.type(screen.getByLabelText('How the unit stands'), 'flat')
    await userEvent.type(screen.getByLabelText('The label faces'), 'up')
    await click('Add')
    await click('Save as version 4')
    expect(sent[0]?.body).toMatchObject({ document: { looks: { loader: 'slot' }, drive: { prices: { replace_pickup: { price_eur: 26, wait_days: 0 } }, label_faces: { flat: 'up' } } } })
  })

  test('rows come and go', async () => {
    edit()
    await click('Add a row')
    expect(await screen.findByLabelText('Trimmers, row 2, Name')).toHaveValue('')
    await click('Take out row 1 of Trimmers')
    expect(screen.queryByLabelText('Trimmers, row 2, Name')).not.toBeInTheDocument()
  })

  test('what the loader family has not is not asked', async () => {
    edit()
    expect(await screen.findByLabelText('A trimmer on the pickup')).toBeChecked()
    expect(screen.queryByLabelText(/A belt between/)).not.toBeInTheDocument()
  })
})

describe('what fits where', () => {
  const fit = (more: Partial<Fit>): Fit => ({ level: 'pickup', level_name: 'Bare pickup', code: 'VL-30', variant: 'VM-1', verdict: 'fits', verdict_name: 'fits', reasons: ['its sheet names it'], source: "shop's own", transfers: [], shows: [], ...more })
  const fits = [fit({}), fit({ code: 'TL-8', verdict: 'no', verdict_name: 'does not fit', source: 'both sheets' }), fit({ code: 'VL-9', verdict: 'claimed', verdict_name: 'unconfirmed claim', reasons: ['listed'], source: "seller's claim (Odd Lots)" })]
  const show = (more = {}) => {
    const sent = serve({ ...calm, 'GET /api/fits/level/pickup': { fits, sayings: [] }, 'GET /api/fits/unit/VM-1': { fits, sayings: [] }, ...more })
    showAt('/drives/fits?variant=VM-1', '/drives/fits', <FitsScreen />)
    return sent
  }

  test('the picture says each verdict in words', async () => {
    show()
    const row = await screen.findByRole('row', { name: /VM-1 does not fit fits unconfirmed claim|VM-1 fits does not fit unconfirmed claim/ })
    expect(row).toBeInTheDocument()
    expect(screen.getByRole('list', { name: 'What the marks mean' })).toHaveTextContent('cannot fit, by what both drives are')
  })

  test('the table says why, and whose word it is', async () => {
    show()
    expect(await screen.findByRole('row', { name: /VL-9\s*Bare pickup\s*unconfirmed claim\s*listed\s*seller's claim \(Odd Lots\)/ })).toBeInTheDocument()
  })

  test('a wrong "fits" is one step, and needs no more than a tap', async () => {
    const sent = show({ 'POST /api/fits': { fits: [], sayings: [] } })
    await click('It does not fit')
    await click('Write it down')
    expect(sent[0]?.body).toMatchObject({ level: 'pickup', code: 'VL-30', variant: 'VM-1', verdict: 'no', origin: 'shop', confidence: 'sure' })
  })

  test('a claim needs somebody behind it', async () => {
    show()
    await userEvent.click((await screen.findAllByRole('button', { name: 'Say otherwise' }))[1]!)
    const dialog = within(screen.getByRole('dialog'))
    await userEvent.click(dialog.getByLabelText('fits'))
    await userEvent.click(dialog.getByLabelText('hearsay'))
    expect(dialog.getByRole('button', { name: 'Write it down' })).toBeDisabled()
    await userEvent.type(dialog.getByLabelText('Who says so?'), 'a phone call')
    expect(dialog.getByRole('button', { name: 'Write it down' })).toBeEnabled()
  })
})

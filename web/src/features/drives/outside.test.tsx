import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, expect, test } from 'vitest'
import type { Drive, SheetForm } from '@/api/types'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { ConsoleEditor } from './console-editor'
import { Outside } from './outside'

const drive = { maker: 'Vess', console: 'Orlo', revision: 'C', variant: 'VM-1' } as Drive
const column = { unit: '', low: 0, high: 0, choices: [], optional: false }
const table = { id: 'opening', title: 'Opening order', about: 'each step in', columns: [{ ...column, id: 'step', name: 'Step', kind: 'text' as const }] }
const form = { console_tables: [table], tables: [], levels: [], features: [], repairs: {}, origins: {}, verdicts: {} } as SheetForm
const named = { maker: 'Vess', console: 'Orlo', revision: 'C' }
const sheet = (version: number, rows: object[]) => ({ ...named, version, why: '', by: 'Ida', at: null, document: { format: 'f', version: 1, ...named, tables: { opening: rows } } })
const shown = (found: unknown, more: Record<string, unknown> = {}) => {
  const sent = serve({ 'GET /api/console': found, ...more })
  showAt('/', '/', <Outside drive={drive} form={form} may />)
  return sent
}
beforeEach(() => localStorage.clear())

test('what is outside stands beside every drive of the console, with its version', async () => {
  shown(sheet(3, [{ step: 'Feet' }]))
  expect(await screen.findByText('Feet')).toBeVisible()
  expect(screen.getByText(/version 3, the same for every drive/)).toBeVisible()
  expect(screen.getByRole('link', { name: 'Save it as a file' })).toHaveAttribute('href', '/api/console/file?maker=Vess&console=Orlo&revision=C')
})

test('where nobody has written it, it can be written', async () => {
  shown(sheet(0, []))
  expect(await screen.findByText('Nobody has written yet how this console is opened.')).toBeVisible()
  expect(screen.getByRole('link', { name: 'Write the console’s sheet' })).toHaveAttribute('href', '/drives/VM-1/console')
  expect(screen.queryByText('Save it as a file')).toBeNull()
})

test('a bad file changes nothing and says where it is bad', async () => {
  shown(sheet(1, []), { 'POST /api/console-files': new Refusal('/tables/opening/0/after: there is no step') })
  await userEvent.upload(await screen.findByLabelText('A console’s sheet from a file'), new File(['{}'], 'a.json', { type: 'application/json' }))
  expect(await screen.findByRole('alert')).toHaveTextContent('/tables/opening/0/after')
})

const edited = (answer: unknown) => {
  const sent = serve({ 'GET /api/sheets/VM-1': { drive }, 'GET /api/console': sheet(2, [{ step: 'Feet' }]), 'GET /api/sheet-form': form, 'POST /api/console': answer })
  return { sent, router: showAt('/drives/VM-1/console', '/drives/:variant/console', <ConsoleEditor />) }
}

test('it is saved as its next version, and leads back to the drive', async () => {
  const { sent, router } = edited(sheet(3, []))
  const cell = await screen.findByLabelText('Opening order, row 1, Step')
  await userEvent.type(cell, ' of rubber')
  await userEvent.type(screen.getByLabelText('What changed, and why'), 'feet')
  await userEvent.click(screen.getByRole('button', { name: 'Save as version 3' }))
  await waitFor(() => expect(router.state.location.pathname).toBe('/drives/VM-1'))
  expect(sent[0]?.body).toMatchObject({ based_on: 2, why: 'feet', document: { tables: { opening: [{ step: 'Feet of rubber' }] } } })
})

test('what is refused is shown at its cell, and what was typed stays and is undone step by step', async () => {
  edited(new Refusal('no such step', { place: '/tables/opening/0/step' }))
  const cell = await screen.findByLabelText('Opening order, row 1, Step')
  await userEvent.type(cell, '!')
  await userEvent.click(screen.getByRole('button', { name: 'Save as version 3' }))
  await waitFor(() => expect(screen.getByLabelText('Opening order, row 1, Step')).toHaveAttribute('aria-invalid', 'true'))
  expect(screen.getByLabelText('Opening order, row 1, Step')).toHaveValue('Feet!')
  await userEvent.click(screen.getByRole('button', { name: 'Undo' }))
  expect(screen.getByLabelText('Opening order, row 1, Step')).toHaveValue('Feet')
})

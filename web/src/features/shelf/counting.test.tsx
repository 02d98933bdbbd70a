import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import type { Part, PartDetail } from '@/api/types'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { ListFile } from './list-file'
import { PartScreen } from './part-screen'
import { StockTake } from './stock-take'

const part = (more: Partial<Part> = {}): Part => ({
  tag: 'P-0001', level: 'pickup', level_name: 'Bare pickup', code: 'VL-30', name: 'Pickup VL-30', count: 2, health: 'new', works: [], fails: [], is_complete: false, lot: '', place: 'Drawer A2', piece_cents: 2400, origin: '', owner_job: '', away_since: null, ...more,
}) // prettier-ignore
const detail: PartDetail = { ...part(), around_mm: null, section_mm: null, functions: ['reads'], checks: [], trail: [], holders: [], fits: [] }
const calm = { 'GET /api/shelf/away': [], 'GET /api/sheet-form': { tables: [], levels: [], origins: {}, verdicts: {}, features: [], repairs: {} } }

test('of a part only what was changed is put right', async () => {
  const sent = serve({ ...calm, 'GET /api/shelf/parts/P-0001': detail, 'POST /api/shelf/parts/P-0001/correct': detail })
  showAt('/shelf/parts/P-0001', '/shelf/parts/:tag', <PartScreen />)
  await userEvent.click(await screen.findByRole('button', { name: 'Put right' }))
  const place = screen.getByLabelText('Where they lie')
  await userEvent.clear(place)
  await userEvent.type(place, 'B7{Enter}')
  await waitFor(() => expect(sent[0]?.body).toEqual({ place: 'B7', key: sent[0]?.body.key }))
})

test('a stock-take goes place by place, writes each count at once, and leaves out what belongs to owners', async () => {
  const sent = serve({ ...calm, 'GET /api/shelf/parts': [part(), part({ tag: 'P-0002', place: '' }), part({ tag: 'K-0102-A', owner_job: 'K-0102' })], 'POST /api/shelf/parts/P-0001/correct': detail })
  showAt('/shelf/count', '/shelf/count', <StockTake />)
  expect((await screen.findAllByRole('heading', { level: 2 })).map((h) => h.textContent)).toEqual(['Drawer A2', 'nobody wrote where'])
  expect(screen.queryByText('K-0102-A')).toBeNull()
  const row = within(screen.getByText('P-0001').closest('li')!)
  await userEvent.type(row.getByLabelText('Counted'), '3{Enter}')
  await waitFor(() => expect(sent[0]?.body).toMatchObject({ count: 3 }))
})

test.each([
  ['many', 'A whole number.'],
  ['4{Enter}', 'It belongs to an owner.'],
])('a count of %s is refused in words', async (typed, says) => {
  serve({ ...calm, 'GET /api/shelf/parts': [part()], 'POST /api/shelf/parts/P-0001/correct': new Refusal('It belongs to an owner.', {}, 409) })
  showAt('/shelf/count', '/shelf/count', <StockTake />)
  await userEvent.type(await screen.findByLabelText('Counted'), typed)
  expect(await screen.findByText(says)).toBeInTheDocument()
})

const upload = async () => userEvent.upload(await screen.findByLabelText('The shelf from a CSV file'), new File(['tag,count'], 'shelf.csv', { type: 'text/csv' }))

test.each([
  [{ new: 2, put_right: 1, same: 9 }, 'status', /New on the shelf: 2. Put right: 1. As they were: 9/],
  [new Refusal('line 3, count: expected a number', {}, 422), 'alert', /Nothing was changed.*line 3/],
])('a list that is taken in says what came of it', async (answer, role, says) => {
  serve({ ...calm, 'POST /api/shelf/list': answer })
  showAt('/shelf', '/shelf', <ListFile />)
  await upload()
  expect(await screen.findByRole(role)).toHaveTextContent(says)
})

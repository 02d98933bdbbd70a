import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { beforeEach, expect, test, vi } from 'vitest'
import type { Job } from '@/api/types'
import { AmendForm } from './amend-form'
import { TakeInForm } from './take-in-form'

const drive = { family: 'slot', pairing: 'board', has_trimmer: true, fuse_rating: '', wavelengths: [405], maker: 'Vessmark', console: 'Orlo 3', revision: 'C', variant: 'VM-S41' }
const job = { owner_name: 'W', owner_contact: 'x', complaint: 'c', supply: 'own', limit_cents: null, promised_on: null, condition: [], returns: null } as unknown as Job // the form reads no more of it
const sheets = [{ id: 4, drive, version: 1, classes: ['game_bd'], notes: [] }]
const prompts = [{ id: 'seals', ask: 'Seals', choices: [{ id: 'whole', label: 'Whole' }, { id: 'cut', label: 'Cut' }] }] // prettier-ignore
const taken = { tag: 'K-0110', missing: [], drive, owner_name: 'Wenna' }
const before = { tag: 'K-0101', console: 'Vessmark Orlo 3', variant: 'VM-S41', sheet_id: 4, owner_name: 'Wenna', owner_contact: '0491', complaint: '', taken_in_at: '2026-11-01T09:00:00Z', closed_at: '2026-11-05T09:00:00Z', outcome: 'Repaired', guarantee_until: '2027-01-05', is_covered: true, is_void: false, returns: '' }
let answer: () => Response
const sent: Record<string, unknown>[] = []

beforeEach(() => {
  localStorage.clear()
  sent.length = 0
  answer = () => new Response(JSON.stringify(taken), { headers: { 'Content-Type': 'application/json' } })
  vi.stubGlobal('fetch', async (request: Request) => {
    if (request.method === 'GET') return new Response(JSON.stringify(request.url.includes('/owners') ? [{ name: 'Wenna', contact: '0491', jobs: [before] }] : [before]), { headers: { 'Content-Type': 'application/json' } })
    sent.push(await request.json())
    return answer()
  })
})

function counter(address = '/take-in', known: object[] = sheets) {
  const cache = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity } } })
  cache.setQueryData(['sheets'], known)
  cache.setQueryData(['prompts'], prompts)
  const onOpen = vi.fn()
  const page = render(
    <MemoryRouter initialEntries={[address]}>
      <QueryClientProvider client={cache}>
        <TakeInForm onOpen={onOpen} identify={(pick) => <button onClick={() => pick(4, { loader: 'slot' })}>Found it</button>} begin={(made) => <button onClick={() => made(9)}>Begun</button>} />
      </QueryClientProvider>
    </MemoryRouter>,
  )
  return { ...page, onOpen }
}

async function fillIn() {
  await userEvent.click(screen.getByLabelText(/Vessmark Orlo 3/))
  await userEvent.type(screen.getByLabelText('Name'), 'Wenna')
  await userEvent.type(screen.getByLabelText('May be spent without asking'), '45,50')
  await userEvent.click(screen.getByLabelText('Cut'))
}
const submit = () => userEvent.click(screen.getByRole('button', { name: 'Take it in and make a tag' }))

test('what was noted goes out as numbers and ids, once, and the draft is gone', async () => {
  const { onOpen } = counter()
  await fillIn()
  await submit()
  expect(await screen.findByText('K-0110')).toBeInTheDocument()
  expect(screen.getByRole('link', { name: 'Print receipt' })).toHaveAttribute('href', '/api/jobs/K-0110/receipt.pdf')
  await userEvent.click(screen.getByRole('button', { name: 'Open it' }))
  expect(onOpen).toHaveBeenCalledWith('K-0110')
  expect(sent).toMatchObject([{ sheet_id: 4, owner_name: 'Wenna', limit_cents: 4550, promised_on: null, condition: { seals: 'cut' } }])
  expect(localStorage.length).toBe(0)
})

test('without console or name nothing goes out, and it says what is missing', async () => {
  counter()
  await submit()
  expect(screen.getAllByRole('alert').map((a) => a.textContent)).toEqual([expect.stringMatching(/Choose the console/), expect.stringMatching(/console is missing.*name is missing/)])
  expect(sent).toEqual([])
})

test('an amount in another unit is refused at its field', async () => {
  counter()
  await userEvent.type(screen.getByLabelText('May be spent without asking'), '45 dollars')
  expect(screen.getByRole('alert')).toHaveTextContent('Write an amount')
})

test('a reload loses nothing, and the second try carries the same key', async () => {
  answer = () => new Response('', { status: 503 })
  const { unmount } = counter()
  await fillIn()
  await submit()
  await screen.findByText('Not taken in yet')
  unmount()
  counter()
  expect(screen.getByLabelText('Name')).toHaveValue('Wenna')
  await submit()
  await waitFor(() => expect(sent).toHaveLength(2))
  expect(sent[0]?.key).toBe(sent[1]?.key)
})

test('the counter completes only what it changed', async () => {
  const cache = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity } } })
  cache.setQueryData(['prompts'], prompts)
  const onSave = vi.fn()
  render(
    <QueryClientProvider client={cache}>
      <AmendForm job={job} onSave={onSave} />
    </QueryClientProvider>,
  )
  expect(screen.getByRole('button', { name: 'Save the notes' })).toBeDisabled()
  await userEvent.type(screen.getByLabelText('May be spent without asking'), '30')
  await userEvent.click(screen.getByRole('button', { name: 'Save the notes' }))
  expect(onSave).toHaveBeenCalledWith({ limit_cents: 3000 })
})

test('the console is found by typing, and Enter takes the one that is left without sending the form', async () => {
  const many = Array.from({ length: 6 }, (_, n) => ({ ...sheets[0]!, id: 10 + n, drive: { ...drive, console: `Tarn ${n}`, variant: `T-S4${n}` } }))
  counter('/take-in', many)
  await userEvent.type(screen.getByLabelText('Maker, console or drive'), 'tarn{Enter}')
  expect(screen.queryByRole('radio', { checked: true })).toBeNull()
  await userEvent.type(screen.getByLabelText('Maker, console or drive'), ' 4{Enter}')
  expect(screen.getByLabelText('Name')).toHaveFocus()
  expect(screen.getByLabelText(/Tarn 4/)).toBeChecked()
  expect(sent).toEqual([])
})

test('all as usual takes the first answer of each prompt and leaves what was noted', async () => {
  counter()
  await userEvent.click(screen.getByRole('button', { name: 'All as usual' }))
  expect(screen.getByRole('button', { name: 'Take it in and make a tag' })).toHaveFocus()
  expect(screen.getByLabelText('Whole')).toBeChecked()
  expect(screen.getByText('all noted')).toBeInTheDocument()
})

test('a promise is a press and says its weekday; a day that has passed asks back', async () => {
  counter()
  await fillIn()
  await userEvent.click(screen.getByRole('radio', { name: 'Friday' }))
  expect(screen.getByText(/^Fri \d/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Another day' }))
  fireEvent.change(screen.getByLabelText('On'), { target: { value: '2020-01-06' } })
  await submit()
  expect(screen.getByText('The promised day has passed.')).toBeInTheDocument()
  await userEvent.click(screen.getByLabelText(/It is meant so/))
  await submit()
  await waitFor(() => expect(sent[0]).toMatchObject({ promised_on: '2020-01-06' }))
})

test('a known owner is taken over, and the unit that came back with its question', async () => {
  counter()
  await userEvent.type(screen.getByLabelText('Name'), 'wen')
  await userEvent.click(await screen.findByRole('button', { name: 'It is this owner' }))
  expect(screen.getByLabelText('How to reach them')).toHaveValue('0491')
  await userEvent.click(await screen.findByRole('button', { name: 'This unit came back' }))
  await userEvent.click(await screen.findByLabelText('The same'))
  expect(screen.getByRole('status')).toHaveTextContent('The owner pays nothing')
  await submit()
  await waitFor(() => expect(sent[0]).toMatchObject({ returns: 'K-0101', is_same_fault: true, sheet_id: 4, owner_contact: '0491' }))
})

test('from a closed job the unit and its owner are there already, and the same fault is asked for', async () => {
  counter('/take-in?returns=K-0101')
  await waitFor(() => expect(screen.getByLabelText('Name')).toHaveValue('Wenna'))
  await submit()
  expect(screen.getByText('Say whether it is the same fault as before.')).toBeInTheDocument()
  expect(sent).toEqual([])
})

test.each(['It did not', 'Clear the form'])('"%s" lets go of the job it was said to come back from, also after a reload', async (button) => {
  const first = counter('/take-in?returns=K-0101')
  await waitFor(() => expect(screen.getByLabelText('Name')).toHaveValue('Wenna'))
  await userEvent.click(screen.getByRole('button', { name: button }))
  expect(screen.queryByText(/It came back after/)).not.toBeInTheDocument()
  first.unmount()
  counter()
  expect(screen.queryByText(/It came back after/)).not.toBeInTheDocument()
})

test('what was seen to find the drive goes with the job', async () => {
  counter()
  await userEvent.type(screen.getByLabelText('Name'), 'Wenna')
  await userEvent.click(screen.getByRole('button', { name: /find it by looking/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Found it' }))
  await submit()
  await waitFor(() => expect(sent[0]).toMatchObject({ sheet_id: 4, looks: { loader: 'slot' } }))
})

test('a drive that nobody has seen gets a sheet on the way', async () => {
  counter()
  await userEvent.type(screen.getByLabelText('Name'), 'Wenna')
  await userEvent.click(screen.getByRole('button', { name: /never seen/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Begun' }))
  await submit()
  await waitFor(() => expect(sent[0]).toMatchObject({ sheet_id: 9 }))
})

// the test's day is Wednesday 4 March: tomorrow is a press, and a press more takes it back
const withdrawn: [string, () => unknown][] = [
  ['2026-03-05', () => userEvent.click(screen.getByRole('radio', { name: 'Tomorrow' }))],
  ['2026-03-17', () => fireEvent.change(screen.getByLabelText('On'), { target: { value: '' } })],
]

test.each(withdrawn)('putting right sends a withdrawn promise of %s and whether it is covered', async (promised_on, withdraw) => {
  const cache = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity } } })
  cache.setQueryData(['prompts'], prompts)
  const onSave = vi.fn()
  render(
    <QueryClientProvider client={cache}>
      <AmendForm job={{ ...job, promised_on, returns: { tag: 'K-0101', is_covered: true } }} onSave={onSave} />
    </QueryClientProvider>,
  )
  await withdraw()
  await userEvent.click(screen.getByLabelText('No'))
  await userEvent.click(screen.getByRole('button', { name: 'Save the notes' }))
  expect(onSave).toHaveBeenCalledWith({ is_promise_withdrawn: true, is_covered: false })
})

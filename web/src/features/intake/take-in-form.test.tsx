import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, expect, test, vi } from 'vitest'
import type { Job } from '@/api/types'
import { AmendForm } from './amend-form'
import { TakeInForm } from './take-in-form'

const drive = { family: 'slot', pairing: 'board', has_trimmer: true, fuse_rating: '', wavelengths: [405], maker: 'Vessmark', console: 'Orlo 3', revision: 'C', variant: 'VM-S41' }
const job = { owner_name: 'W', owner_contact: 'x', complaint: 'c', supply: 'own', limit_cents: null, promised_on: null, condition: [] } as unknown as Job // the form reads no more of it
const sheets = [{ id: 4, drive, version: 1, classes: ['game_bd'], notes: [] }]
const prompts = [{ id: 'seals', ask: 'Seals', choices: [{ id: 'whole', label: 'Whole' }, { id: 'cut', label: 'Cut' }] }] // prettier-ignore
let answer: () => Response
const sent: Record<string, unknown>[] = []

beforeEach(() => {
  sent.length = 0
  answer = () => new Response(JSON.stringify({ tag: 'K-0110' }), { headers: { 'Content-Type': 'application/json' } })
  vi.stubGlobal('fetch', async (request: Request) => {
    sent.push(await request.json())
    return answer()
  })
})

function counter(onTaken = vi.fn()) {
  const cache = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity } } })
  cache.setQueryData(['sheets'], sheets)
  cache.setQueryData(['prompts'], prompts)
  const page = render(
    <QueryClientProvider client={cache}>
      <TakeInForm onTaken={onTaken} identify={(pick) => <button onClick={() => pick(2)}>Found it</button>} />
    </QueryClientProvider>,
  )
  return { ...page, onTaken }
}

async function fillIn() {
  await userEvent.click(screen.getByLabelText(/Vessmark Orlo 3/))
  await userEvent.type(screen.getByLabelText('Name'), 'Wenna')
  await userEvent.type(screen.getByLabelText('May be spent without asking'), '45,50')
  await userEvent.click(screen.getByLabelText('Cut'))
}
const submit = () => userEvent.click(screen.getByRole('button', { name: 'Take it in and make a tag' }))

test('what was noted goes out as numbers and ids, once, and the draft is gone', async () => {
  const { onTaken } = counter()
  await fillIn()
  await submit()
  await waitFor(() => expect(onTaken).toHaveBeenCalledWith('K-0110'))
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

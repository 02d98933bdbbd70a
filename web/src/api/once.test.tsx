import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { fileBody, useOnce } from './once'
import { NoAnswerError, ProblemError } from './problem'

const keys: string[] = []
const write = vi.fn<(body: { key: string; n: number }) => Promise<string>>()

function Writer({ n }: { n: number }) {
  const once = useOnce(write, ['shelf'])
  return (
    <button type="button" onClick={() => once.mutate({ n })}>
      {once.isError ? 'again' : 'write'}
    </button>
  )
}

const show = (n = 1) => {
  keys.length = 0
  const cache = new QueryClient()
  const ui = (k: number) => (
    <QueryClientProvider client={cache}>
      <Writer n={k} />
    </QueryClientProvider>
  )
  const { rerender } = render(ui(n))
  return { cache, change: (k: number) => rerender(ui(k)) }
}
const answer = (with_: () => Promise<string>) =>
  write.mockImplementation((body) => {
    keys.push(body.key)
    return with_()
  })

test('without an answer the same content is sent again with the same key', async () => {
  answer(() => Promise.reject(new NoAnswerError()))
  show()
  await userEvent.click(screen.getByRole('button'))
  await userEvent.click(await screen.findByRole('button', { name: 'again' }))
  expect(keys).toHaveLength(2)
  expect(new Set(keys).size).toBe(1)
})

test.each([
  ['done', () => Promise.resolve('done')],
  ['refused', () => Promise.reject(new ProblemError({ status: 422, code: 'invalid', title: 'No.', params: {} }))],
])('once it is %s, the next tap is a write of its own', async (_, with_) => {
  answer(with_)
  show()
  await userEvent.click(screen.getByRole('button'))
  await userEvent.click(screen.getByRole('button'))
  expect(new Set(keys).size).toBe(2)
})

test('other content gets another key, answered or not', async () => {
  answer(() => Promise.reject(new NoAnswerError()))
  const { change } = show()
  await userEvent.click(screen.getByRole('button'))
  change(2)
  await userEvent.click(screen.getByRole('button'))
  expect(new Set(keys).size).toBe(2)
})

test('what a write touches is asked anew', async () => {
  answer(() => Promise.resolve('done'))
  const { cache } = show()
  cache.setQueryData(['shelf', 'parts'], [])
  cache.setQueryData(['day'], [])
  await userEvent.click(screen.getByRole('button'))
  expect(cache.getQueryState(['shelf', 'parts'])?.isInvalidated).toBe(true)
  expect(cache.getQueryState(['day'])?.isInvalidated).toBe(false)
})

test('a file goes with its key', () => {
  const body = fileBody(new File(['{}'], 'sheet.json'), 'k-1')
  expect(body.get('key')).toBe('k-1')
  expect((body.get('file') as File).name).toBe('sheet.json')
})

import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { SignInForm } from './sign-in-form'

const user = { name: 'Bram Tewell', role: 'technician', may: ['bench'] }

function door(status: number, body: object) {
  const fetched = vi.fn(async () => new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } }))
  vi.stubGlobal('fetch', fetched)
  const cache = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity } } })
  cache.setQueryData(['session'], { user: null, csrf_token: 't', shop: { name: 'Quayside', sign: '€', time_zone: 'UTC' } })
  render(
    <QueryClientProvider client={cache}>
      <SignInForm />
    </QueryClientProvider>,
  )
  return { cache, fetched }
}

async function knock() {
  await userEvent.type(screen.getByLabelText('Name'), 'bram')
  await userEvent.type(screen.getByLabelText('Password'), 'rope{Enter}')
}

test('signing in by keyboard makes the session', async () => {
  const { cache } = door(200, { user, csrf_token: 'u', shop: { name: 'Quayside', sign: '€', time_zone: 'UTC' } })
  expect(screen.getByText('Quayside')).toBeInTheDocument()
  await knock()
  await waitFor(() => expect(cache.getQueryData(['session'])).toMatchObject({ user }))
})

test.each([
  [403, 'not_allowed', 'Name or password is wrong.'],
  [429, 'locked_out', 'Too many failed attempts. Wait a quarter of an hour, or ask the manager.'],
])('a refusal (%i) is said, and what was typed stays', async (status, code, title) => {
  door(status, { status, code, title, params: {} })
  await knock()
  expect(await screen.findByRole('alert')).toHaveTextContent(title)
  expect(screen.getByLabelText('Name')).toHaveValue('bram')
})

test('without name and password nothing is sent', async () => {
  const { fetched } = door(200, {})
  await userEvent.click(screen.getByRole('button', { name: 'Sign in' }))
  expect(fetched).not.toHaveBeenCalled()
})

test('where there is a second factor its code is asked for, and goes out with the rest', async () => {
  const { fetched } = door(403, { status: 403, code: 'not_allowed', title: 'Now the code.', params: { reason: 'code_wanted' } })
  await knock()
  await userEvent.type(await screen.findByLabelText('Code'), '123456{Enter}')
  const request = (fetched.mock.calls as unknown as [Request][])[1]![0]
  expect(await request.json()).toEqual({ username: 'bram', password: 'rope', code: '123456' })
})

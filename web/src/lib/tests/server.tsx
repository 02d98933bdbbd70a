import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { vi } from 'vitest'

export interface Sent {
  method: string
  path: string
  body: Record<string, unknown>
}
type Answer = unknown | ((sent: Sent, at: URL) => unknown)

/** A refusal of the stand-in, as the server words one. */
export class Refusal {
  constructor(
    readonly title: string,
    readonly params: Record<string, unknown> = {},
    readonly status = 422,
  ) {}
}

/** Stands in for the server: "GET /api/…" → what it answers. What was sent is returned. No entry is a network that is down. */
export function serve(answers: Record<string, Answer>): Sent[] {
  const sent: Sent[] = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const at = new URL(request.url)
    const { pathname } = at
    const isJson = request.headers.get('Content-Type')?.includes('json')
    const one: Sent = { method: request.method, path: pathname, body: isJson ? ((await request.json()) as Record<string, unknown>) : {} }
    if (request.method !== 'GET') sent.push(one)
    const told = answers[`${request.method} ${pathname}`]
    if (told === undefined) throw new TypeError('network')
    const answer = await (typeof told === 'function' ? (told as (sent: Sent, at: URL) => unknown)(one, at) : told)
    if (answer instanceof Refusal)
      return new Response(JSON.stringify({ status: answer.status, code: 'invalid', title: answer.title, params: answer.params }), { status: answer.status, headers: { 'Content-Type': 'application/problem+json' } })
    return new Response(JSON.stringify(answer), { headers: { 'Content-Type': 'application/json' } })
  })
  return sent
}

const everything = ['bench', 'agree', 'shelf', 'sheets']

/** A screen at an address, with somebody signed in who may do everything, or what is said. */
export function showAt(address: string, path: string, screen: ReactNode, may: string[] = everything) {
  const cache = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  cache.setQueryData(['session'], { user: { name: 'Bram', role: 'technician', may }, csrf_token: '', shop: '' })
  const router = createMemoryRouter(
    [
      { path, element: screen },
      { path: '*', element: <p>another place</p> },
    ],
    { initialEntries: [address] },
  )
  render(
    <QueryClientProvider client={cache}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  )
  return router
}

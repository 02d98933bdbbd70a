import { screen } from '@testing-library/react'
import { expect, test } from 'vitest'
import type { Claim } from '@/api/types'
import { serve, showAt } from '@/lib/tests/server'
import { ClaimsRegister } from './claims'

const claim = (more: Partial<Claim> = {}): Claim => ({ id: 'c', family: 'slot', text: 'Cleaning is all it needs.', repair: 'Clean the lens', limit: 0.25, counts: [], ...more })
const counted = { variant: 'VM-S41', n_for: 6, n_against: 1, p_holds: 0.97, verdict: 'holds' as const }

async function show(claims: Claim[]) {
  serve({ 'GET /api/claims': claims })
  showAt('/track-record/claims', '/track-record/claims', <ClaimsRegister />)
  await screen.findByRole('table')
}

test('a rule shows its counts, model by model, and what they say', async () => {
  await show([claim({ counts: [counted] })])
  expect(screen.getByRole('row', { name: /Cleaning is all it needs\..*VM-S41 6 1 holds 97% that it holds/ })).toBeInTheDocument()
})

test.each([
  [0.25, 'at least 25%'],
  [-0.1, 'at most 10%'],
])('a limit of %d is said as "%s", and a rule nobody tried says so', async (limit, says) => {
  await show([claim({ limit })])
  const row = screen.getByRole('row', { name: /no trial yet/ })
  expect(row).toHaveTextContent(says)
})

test('rules with counts come first', async () => {
  await show([claim({ id: 'a', text: 'Untried.' }), claim({ id: 'b', text: 'Tried.', counts: [counted] })])
  expect(screen.getAllByRole('rowheader').map((h) => h.textContent)).toEqual([expect.stringContaining('Tried.'), expect.stringContaining('Untried.')])
})

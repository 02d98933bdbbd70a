import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { AccountScreen } from './account'

const here = { device: 'computer', began_at: '2026-11-28T09:00:00Z', is_this: true }
const account = (more = {}) => ({ sessions: [here, { device: 'tablet', began_at: '2026-11-27T09:00:00Z', is_this: false }], has_factor: false, on_paper: 0, ...more })
const show = (more: Record<string, unknown> = {}, told = account()) => {
  const sent = serve({ 'GET /api/session/account': told, ...more })
  showAt('/account', '/account', <AccountScreen />)
  return sent
}

test('where somebody is signed in is listed, and everywhere else is ended by a press', async () => {
  const sent = show({ 'POST /api/session/account/end-others': account({ sessions: [here] }) })
  expect(await screen.findByText('On a tablet')).toBeVisible()
  await userEvent.click(screen.getByRole('button', { name: 'Sign out everywhere else' }))
  expect(sent).toMatchObject([{ path: '/api/session/account/end-others' }])
})

test('alone there is nothing to end', async () => {
  show({}, account({ sessions: [here] }))
  expect(await screen.findByText('here alone')).toBeVisible()
  expect(screen.queryByRole('button', { name: /everywhere else/ })).toBeNull()
})

test('a second factor is scanned, tried, and its codes for paper are shown', async () => {
  const sent = show({ 'POST /api/session/account/factor': { square: 'data:,x', secret: 'ABCD' }, 'POST /api/session/account/factor/on': { codes: ['aa-11', 'bb-22'] } })
  await userEvent.click(await screen.findByRole('button', { name: 'Set it up' }))
  expect(await screen.findByText('ABCD')).toBeVisible()
  await userEvent.type(screen.getByLabelText('The code that it shows'), '123456{Enter}')
  expect(await screen.findByText('bb-22')).toBeVisible()
  expect(sent.at(-1)).toMatchObject({ path: '/api/session/account/factor/on', body: { code: '123456' } })
})

test('a wrong code is said, and the square stays', async () => {
  show({ 'POST /api/session/account/factor': { square: 'data:,x', secret: 'ABCD' }, 'POST /api/session/account/factor/on': new Refusal('That code is not right.', {}, 403) })
  await userEvent.click(await screen.findByRole('button', { name: 'Set it up' }))
  await userEvent.type(await screen.findByLabelText('The code that it shows'), '1{Enter}')
  expect(await screen.findByRole('alert')).toHaveTextContent('That code is not right.')
  expect(screen.getByText('ABCD')).toBeVisible()
})

test('it is switched off by the password', async () => {
  const sent = show({ 'POST /api/session/account/factor/off': account() }, account({ has_factor: true, on_paper: 1 }))
  expect(await screen.findByText(/is one code left/)).toBeVisible()
  await userEvent.type(screen.getByLabelText(/to switch it off/), 'three-plain-words{Enter}')
  expect(sent).toMatchObject([{ path: '/api/session/account/factor/off', body: { password: 'three-plain-words' } }])
})

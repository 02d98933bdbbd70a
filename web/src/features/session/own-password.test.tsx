import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { OwnPassword } from './own-password'

const type = async (again: string) => {
  await userEvent.type(screen.getByLabelText('Old password'), 'old-old-old')
  await userEvent.type(screen.getByLabelText('New password'), 'three-plain-words')
  await userEvent.type(screen.getByLabelText('The new one again'), again)
}

test('the new password goes out where it was typed the same twice', async () => {
  const sent = serve({ 'POST /api/session/password': { user: null } })
  const done = vi.fn()
  showAt('/', '/', <OwnPassword onDone={done} />)
  await type('three-plain')
  expect(screen.getByRole('alert')).toHaveTextContent('The two differ.')
  expect(screen.getByRole('button', { name: 'Change it' })).toBeDisabled()
  await userEvent.type(screen.getByLabelText('The new one again'), '-words{Enter}')
  await waitFor(() => expect(done).toHaveBeenCalled())
  expect(sent[0]?.body).toEqual({ old: 'old-old-old', new: 'three-plain-words' })
})

test('a refusal is said and nothing typed is lost', async () => {
  serve({ 'POST /api/session/password': new Refusal('The old password is wrong.', {}, 403) })
  showAt('/', '/', <OwnPassword onDone={() => undefined} />)
  await type('three-plain-words{Enter}')
  expect(await screen.findByText('The old password is wrong.')).toBeInTheDocument()
  expect(screen.getByLabelText('New password')).toHaveValue('three-plain-words')
})

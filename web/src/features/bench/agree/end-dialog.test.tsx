import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { jobOf, onBench } from '../tests/kit'
import { EndDialog } from './end-dialog'

const end = (id: string, name: string, more = {}) => ({ id, name, says: `${name} says`, total_cents: 0, is_likeliest: false, ...more })
const job = jobOf({ agree: { ...jobOf().agree, ends: [end('unrepaired', 'As it is'), end('nothing_wrong', 'Nothing wrong found', { total_cents: 1350, is_likeliest: true }), end('disc', 'It was the disc')] } })

test('the likeliest end is picked, each says its price, and the picked one is proposed', async () => {
  const onClose = vi.fn()
  const send = onBench(<EndDialog onClose={onClose} />, job)
  expect(screen.getByRole('radio', { name: /Nothing wrong found.*€13.50/ })).toBeChecked()
  await userEvent.click(screen.getByRole('radio', { name: /It was the disc.*free/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Propose this end' }))
  expect(send.mock.calls[0]?.[0]).toEqual({ do: 'propose', repair: '', end: 'disc' })
  expect(onClose).toHaveBeenCalled()
})

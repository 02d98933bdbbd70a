import { cleanup, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { jobOf, onBench } from '../tests/kit'
import { FindingDialog } from './finding-dialog'
import { TrialDialog } from './trial-dialog'

test('half a trial survives Escape, and is gone once it is logged', async () => {
  const live = jobOf({ stage: 'repair', power: 'live' })
  const close = vi.fn()
  onBench(<TrialDialog repair="clean_lens" onClose={close} />, live)
  await userEvent.click(screen.getByRole('radio', { name: 'Works' }))
  cleanup()
  const send = onBench(<TrialDialog repair="clean_lens" onClose={close} />, live)
  expect(screen.getByRole('radio', { name: 'Works' })).toBeChecked()
  await userEvent.click(screen.getByRole('button', { name: 'Log the trial' }))
  expect(send.mock.calls[0]?.[0]).toMatchObject({ do: 'trial', result: 'clean' })
  expect(localStorage.length).toBe(0)
})

test('half a remark survives a tap beside the dialog', async () => {
  const open = () => onBench(<FindingDialog onlyReadings={false} onClose={() => undefined} />, jobOf())
  open()
  await userEvent.type(screen.getByLabelText('Or a remark'), 'Owner ra')
  cleanup()
  const send = open()
  await userEvent.type(screen.getByLabelText('Or a remark'), 'ng')
  await userEvent.click(screen.getByRole('button', { name: 'Log the remark' }))
  expect(send).toHaveBeenCalledWith({ do: 'remark', text: 'Owner rang' }, 'Owner rang')
  expect(localStorage.length).toBe(0)
})

import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import { jobOf, onBench } from '../tests/kit'
import { Confirmed } from './confirmed'

const at = (confirmed: { fault: string; by: 'seen' | 'not_known' } | null = null, stage: 'hand_back' | 'closed' = 'hand_back') => {
  const job = jobOf()
  return { ...job, stage, proof: { ...job.proof, cause: 'Lens dirty: seen.', confirmed } }
}

test.each([
  ['1', 'seen'],
  ['2', 'measured'],
  ['3', 'fault_followed'],
])('one key confirms the first suspect: %s', async (key, by) => {
  const send = onBench(<Confirmed />, at())
  await userEvent.keyboard(key)
  expect(send).toHaveBeenCalledWith({ do: 'confirm_cause', by, fault: at().diagnosis.suspects[0]!.id }, expect.stringContaining('Cause confirmed'))
})

test('it may not be known, and then no fault is named', async () => {
  const send = onBench(<Confirmed />, at())
  await userEvent.keyboard('4')
  expect(send).toHaveBeenCalledWith({ do: 'confirm_cause', by: 'not_known', fault: '' }, 'Cause not known for certain')
})

test('another suspect is chosen first', async () => {
  const send = onBench(<Confirmed />, at())
  const other = at().diagnosis.suspects[1]!
  await userEvent.click(screen.getByRole('radio', { name: new RegExp(other.name) }))
  await userEvent.click(screen.getByRole('button', { name: /Measured/ }))
  expect(send).toHaveBeenCalledWith({ do: 'confirm_cause', by: 'measured', fault: other.id }, expect.stringContaining(other.name))
})

test('what was said stands, and can be said otherwise', async () => {
  onBench(<Confirmed />, at({ fault: 'lens_dirty', by: 'seen' }))
  expect(screen.getByText('Lens dirty: seen.')).toBeVisible()
  await userEvent.click(screen.getByRole('button', { name: 'Say it otherwise' }))
  expect(screen.getByRole('button', { name: /Not known for certain/ })).toBeVisible()
})

test.each([
  [at(null, 'closed'), true],
  [at(), false],
])('nobody is asked after it has closed, nor who does no bench work: %#', (job, mayWork) => {
  onBench(<Confirmed />, job, { mayWork })
  expect(screen.queryByText('What was it?')).toBeNull()
})

test('it may have been something that is not on the list', async () => {
  const send = onBench(<Confirmed />, at())
  await userEvent.click(screen.getByRole('radio', { name: 'Something that is not on the list' }))
  await userEvent.keyboard('2')
  expect(send).toHaveBeenCalledWith({ do: 'confirm_cause', by: 'measured', fault: 'not_listed' }, expect.stringContaining('not on the list'))
})

import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import type { Job } from '@/api/types'
import { jobOf, onBench } from '../tests/kit'
import { Holds } from '../frame/holds'
import { ProveMat } from './prove-mat'

type Check = Job['proof']['checks'][number]
const check = (id: string, more: Partial<Check> = {}): Check => ({ id, title: id, how: '', state: 'open', tries: 1, done: 0, waits_for: '', question: '', is_timed: false, reference_s: null, may_be_left: false, why_left: '', ...more })
const cold = check('Starts cold', { waits_for: 'cold start' })
const soon = new Date(Date.now() + 600_000).toISOString()
const wait = (until: string | null): Job['waits'][number] => ({ code: 'cold', text: 'It ran a while ago.', clears: '', until, bars: 'cold start' })
const proving = (checks: Check[], more: Partial<Job> = {}) => jobOf({ stage: 'prove', missing: [{ code: 'checks', text: 'x' }], ...more, proof: { ...jobOf().proof, checks } })

test('what waits lets the rest go first, and has its minute when it is alone', () => {
  onBench(<ProveMat />, proving([cold, check('Ejects')], { waits: [wait(soon)] }))
  expect(screen.getByRole('region', { name: 'Proven now' })).toHaveTextContent('Ejects')
})

test('before the power is on the cold start comes first, unless somebody would rather do the rest', async () => {
  onBench(<ProveMat />, proving([cold, check('Ejects')], { waits: [wait(soon)], power: 'out' }))
  expect(screen.getByRole('region', { name: 'Proven now' })).toHaveTextContent('Starts cold')
  await userEvent.click(screen.getByRole('button', { name: 'Do the rest first' }))
  expect(screen.getByRole('region', { name: 'Proven now' })).toHaveTextContent('Ejects')
})

test('a start before it was cold: the plug is pulled, and it stands', async () => {
  const send = onBench(<ProveMat />, proving([cold], { waits: [wait(null)] }))
  expect(screen.getByRole('button', { name: /Works/ })).toBeDisabled()
  await userEvent.keyboard('{Enter}')
  expect(send.mock.calls[0]?.[0]).toEqual({ do: 'mains', state: 'out' })
})

test('while it stands nothing puts the power on, and it can be lifted by name', async () => {
  const send = onBench(<ProveMat />, proving([cold], { waits: [wait(soon)], power: 'out' }))
  await userEvent.keyboard('{Enter}')
  expect(send).not.toHaveBeenCalled()
  expect(screen.getByRole('button', { name: /^Cold at/ })).toBeDisabled()
  await userEvent.keyboard('a')
  expect(screen.getByRole('dialog')).toHaveTextContent('Lift this hold by hand')
})

test('with a strip above the key is the strip’s, and one dialog opens', async () => {
  const charge = { code: 'charge', text: 'Charge remains.', clears: 'Measured', until: soon, bars: 'opening' as const }
  onBench(<><Holds /><ProveMat /></>, proving([cold], { waits: [wait(soon), charge], power: 'out' })) // prettier-ignore
  await userEvent.keyboard('a')
  expect(screen.getByRole('dialog')).toHaveTextContent('Charge remains.')
})

test('the time to play goes with the class, where healthy units are known', async () => {
  const send = onBench(<ProveMat />, proving([check('Reads a film DVD', { is_timed: true, reference_s: 14 })]))
  await userEvent.type(screen.getByLabelText('Seconds until it plays'), '14,5')
  await userEvent.click(screen.getByRole('button', { name: /Works/ }))
  expect(send.mock.calls[0]?.[0]).toMatchObject({ is_passed: true, seconds: 14.5 })
})

test('what is not here is left out with its reason', async () => {
  const send = onBench(<ProveMat />, proving([check('own_disc', { may_be_left: true })]))
  await userEvent.keyboard('4')
  await userEvent.click(screen.getByRole('button', { name: 'Leave it out' }))
  await waitFor(() => expect(send.mock.calls[0]?.[0]).toEqual({ do: 'leave_check', check: 'own_disc', why: 'the owner took it along' }))
})

test('what the console wants on the owner’s account is asked, and written down', async () => {
  const send = onBench(<ProveMat />, proving([check('Ejects')]))
  await userEvent.click(screen.getByRole('button', { name: /wants to install or copy/ }))
  await userEvent.type(screen.getByLabelText('What it wants'), 'a system update')
  await userEvent.click(screen.getByRole('radio', { name: /^Agreed/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Write it down' }))
  await waitFor(() => expect(send.mock.calls[0]?.[0]).toEqual({ do: 'ask_account', what: 'a system update', by_name: 'Wenna', is_agreed: true }))
})

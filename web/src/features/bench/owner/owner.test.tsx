import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, test, vi } from 'vitest'
import { serve } from '@/lib/tests/server'
import { HandBackMat } from '../prove/hand-back-mat'
import { jobOf, onBench } from '../tests/kit'
import { OwnerDialog } from './owner-dialog'

vi.mock('@/api/session', async (real) => ({ ...(await real<object>()), useMay: () => true }))

const earlier = { tag: 'K-0101', console: 'M C', variant: 'V', sheet_id: 1, owner_name: 'W', owner_contact: '', complaint: '', taken_in_at: '2026-11-01T09:00:00Z', closed_at: '2026-11-05T09:00:00Z', outcome: 'Repaired', guarantee_until: '2027-01-05', is_covered: true, is_void: false, returns: '' }
const told = { at: '2026-11-05T09:30:00Z', by: 'Nia', means: 'phone', what: 'It is ready.' }
const proposal = { repair: 'clean_lens', name: 'Clean the lens', total_cents: 4500, p_success: 0.6, p_lasts_year: null, end: '' }
const ready = jobOf({ stage: 'hand_back', agree: { ...jobOf().agree, proposal }, missing: [{ code: 'collected', text: 'Somebody to fetch it: write down who.' }] })
const press = (name: string | RegExp) => userEvent.click(screen.getByRole('button', { name }))

describe('owner and papers', () => {
  const open = (job = jobOf()) => {
    serve({ 'GET /api/jobs/K-0107/earlier': [earlier] })
    return onBench(<OwnerDialog counter={(_, save) => <button onClick={() => save({ owner_name: 'Odo' })}>Save the notes</button>} onClose={() => undefined} />, job)
  }

  test('hold receipt, report and the other jobs of the owner', async () => {
    open(jobOf({ told: [told] }))
    expect(screen.getByRole('link', { name: 'Receipt (PDF)' })).toHaveAttribute('href', '/api/jobs/K-0107/receipt.pdf')
    expect(await screen.findByRole('link', { name: 'K-0101' })).toHaveAttribute('href', '/bench/K-0101')
    expect(screen.getByText('inside its guarantee')).toBeInTheDocument()
    expect(screen.getByText(/It is ready\./)).toHaveTextContent('told by phone by Nia')
  })

  test('what the owner was told is written down with how', async () => {
    const send = open()
    await userEvent.click(screen.getByLabelText('By message'))
    await userEvent.type(screen.getByLabelText('What?'), 'Ready on Friday{Enter}')
    expect(send).toHaveBeenCalledWith({ do: 'tell_owner', means: 'message', what: 'Ready on Friday' }, 'The owner told by message')
  })

  test('notes are put right, and a mistake is taken out with its reason', async () => {
    const send = open()
    await userEvent.click(screen.getByText('Put right what was written down'))
    await press('Save the notes')
    await userEvent.click(screen.getByText('It was taken in by mistake'))
    expect(screen.getByRole('button', { name: 'Take it out of the day' })).toBeDisabled()
    await userEvent.type(screen.getByLabelText('Why?'), 'same unit twice{Enter}')
    expect(send.mock.calls.map(([ask]) => ask)).toEqual([
      { do: 'amend', owner_name: 'Odo' },
      { do: 'void', why: 'same unit twice' },
    ])
  })

  test('a closed job is only read', async () => {
    open(jobOf({ stage: 'closed' }))
    await screen.findByRole('link', { name: 'K-0101' })
    expect(screen.queryByText('Put right what was written down')).toBeNull()
  })
})

describe('handing over', () => {
  test('paid in all and how, fetched by whom', async () => {
    const send = onBench(<HandBackMat />, ready)
    await userEvent.click(screen.getByLabelText('Card'))
    expect(screen.getByLabelText('In all')).toHaveValue('45.00')
    await press('Paid')
    await userEvent.clear(screen.getByLabelText('Fetched by'))
    await userEvent.type(screen.getByLabelText('Fetched by'), 'Odo{Enter}')
    expect(send.mock.calls.map(([ask]) => ask)).toEqual([
      { do: 'take_payment', cents: 4500, how: 'card' },
      { do: 'collect', by_name: 'Odo' },
    ])
  })

  test.each([
    [['collected'], [{ do: 'collect', by_name: ready.owner_name }]],
    [['collected', 'closed'], []],
  ])('with %j left, Enter writes down who has come for it, or nothing', async (codes, asks) => {
    const send = onBench(<HandBackMat />, { ...ready, missing: codes.map((code) => ({ code, text: code })) })
    await userEvent.keyboard('{Enter}')
    expect(send.mock.calls.map(([ask]) => ask)).toEqual(asks)
  })

  test('an amount that is none is not written', async () => {
    onBench(<HandBackMat />, ready)
    await userEvent.click(screen.getByLabelText('Cash'))
    await userEvent.type(screen.getByLabelText('In all'), 'x')
    expect(screen.getByRole('button', { name: 'Paid' })).toBeDisabled()
  })

  test('a unit that nobody repaired can be left here for parts', async () => {
    const send = onBench(<HandBackMat />, { ...ready, agree: { ...ready.agree, proposal: { ...proposal, repair: '', end: 'unrepaired' } } })
    await press('Leaves it here for parts')
    expect(send).toHaveBeenCalledWith({ do: 'leave_unit', by_name: 'Wenna' }, expect.any(String))
  })

  test('what came back opens a new job; what was a mistake can stand again', async () => {
    const send = onBench(<HandBackMat />, jobOf({ stage: 'closed', guarantee_until: '2027-01-05' }))
    expect(screen.getByRole('link', { name: /came back/ })).toHaveAttribute('href', '/take-in?returns=K-0107')
    expect(screen.getByText(/runs until Tue 5 Jan/)).toBeInTheDocument()
    expect(send).not.toHaveBeenCalled()
  })

  test('a voided job says why and stands again by a press', async () => {
    const send = onBench(<HandBackMat />, jobOf({ stage: 'closed', voided: 'twice' }))
    await press(/let it stand again/)
    await waitFor(() => expect(send).toHaveBeenCalledWith({ do: 'unvoid' }, expect.any(String)))
    expect(screen.queryByRole('link', { name: /came back/ })).toBeNull()
  })
})

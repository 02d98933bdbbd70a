import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, test, vi } from 'vitest'
import type { Outlook } from '@/api/types'
import { Deeper } from '../isolate/deeper'
import { FindingDialog } from '../tape/finding-dialog'
import { PartDialog } from './part-dialog'
import { SeenMat } from '../seen/seen-mat'
import { entry, jobOf, move, onBench } from '../tests/kit'
import { TrialDialog } from '../tape/trial-dialog'

const answering = (body: unknown, status = 200) => vi.stubGlobal('fetch', async () => new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } }))

describe('a part for this job', () => {
  const fill = async () => {
    await userEvent.selectOptions(screen.getByLabelText('For which repair?'), 'replace_pickup')
    await userEvent.type(screen.getByLabelText('Its tag'), 'P-4')
    await userEvent.click(screen.getByLabelText('Not known'))
  }

  test('in a donor, with what it was seen to do', async () => {
    const send = onBench(<PartDialog onClose={vi.fn()} />)
    await fill()
    await userEvent.click(screen.getByLabelText('In a donor'))
    await userEvent.click(screen.getByLabelText('spins'))
    await userEvent.type(screen.getByLabelText(/price/), '4,50')
    await userEvent.click(screen.getByRole('button', { name: 'Note the part' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ repair: 'replace_pickup', item: 'P-4', health: 'unknown', works: ['spins'], fails: [], price_cents: 450, wait_days: 0, is_donor: true })
  })

  test.each([
    ['0', /days from 1 to 365/],
    ['soon', /days from 1 to 365/],
  ])('on its way in "%s" days is no number of days', async (days, says) => {
    onBench(<PartDialog onClose={vi.fn()} />)
    await fill()
    await userEvent.click(screen.getByLabelText('On its way'))
    await userEvent.type(screen.getByLabelText('Here in how many days?'), days)
    expect(screen.getByRole('alert')).toHaveTextContent(says)
    expect(screen.getByRole('button', { name: 'Note the part' })).toBeDisabled()
  })

  test('only repairs that take a part are offered', () => {
    onBench(<PartDialog onClose={vi.fn()} />)
    expect(screen.queryByRole('option', { name: 'Clean the lens' })).not.toBeInTheDocument()
  })
})

describe('a trial of several changes', () => {
  test('keeps each change, and one can be left out again', async () => {
    const send = onBench(<TrialDialog repair="clean_lens" onClose={vi.fn()} />)
    await userEvent.click(screen.getByRole('button', { name: 'Something else was changed too' }))
    await userEvent.selectOptions(screen.getByLabelText('What else?'), 'replace_pickup')
    await userEvent.click(screen.getByLabelText('New'))
    await userEvent.click(screen.getByRole('radio', { name: 'No change' }))
    await userEvent.click(screen.getByLabelText('It stays in'))
    await userEvent.click(screen.getByRole('button', { name: 'Log the trial' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ changes: [{ repair: 'clean_lens' }, { repair: 'replace_pickup', health: 'new', stays: true }] })
  })

  test('"part of it changed" says what that does to the tape', async () => {
    onBench(<TrialDialog repair="clean_lens" onClose={vi.fn()} />)
    await userEvent.click(screen.getByRole('radio', { name: 'Part of it changed' }))
    expect(screen.getByText(/ask the stages again/)).toBeInTheDocument()
  })
})

describe('the deeper look', () => {
  const found: Outlook = { version: 7, first: move({ id: 'lens_look', title: 'Lens: clear?' }), is_same: false, median_cents: 6400, low_cents: 2500, high_cents: 11_000, p_repaired: 0.9 }

  test('says the money as a range, and shows the other move only when asked to', async () => {
    answering(found)
    const onShow = vi.fn()
    onBench(<Deeper onShow={onShow} />)
    expect(screen.getByText(/Looking two steps ahead/)).toBeInTheDocument()
    await userEvent.click(await screen.findByRole('button', { name: /would rather: Lens: clear\?/ }, { timeout: 3_000 }))
    expect(screen.getByText(/four times in five between €25 and €110/)).toBeInTheDocument()
    expect(onShow).toHaveBeenCalledWith(found.first)
  })
})

describe('seen in a state', () => {
  test('a time to play goes along with the answer, and a wrong one is named', async () => {
    const timed = entry('game_bd', { reference_s: 24 })
    const send = onBench(<SeenMat />, jobOf({ stage: 'fault_seen', baseline: [timed] }))
    await userEvent.type(screen.getByLabelText('Seconds to play'), 'x')
    expect(screen.getByRole('alert')).toHaveTextContent('A number of seconds')
    await userEvent.clear(screen.getByLabelText('Seconds to play'))
    await userEvent.type(screen.getByLabelText('Seconds to play'), '31,5')
    await userEvent.click(screen.getByRole('button', { name: /Yes/ }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ outcome: 'yes', seconds: 31.5 })
  })

  test('which side of a disc faces where is said for each position', () => {
    const job = jobOf({ stage: 'fault_seen' })
    onBench(<SeenMat />, { ...job, drive: { ...job.drive, label_faces: { 'on its side': 'right' } } })
    expect(screen.getByText(/right when it lies on its side/)).toBeInTheDocument()
  })

  test('a disc the wrong way round is noted with the finding', async () => {
    answering([entry('spins').question])
    const send = onBench(<FindingDialog onlyReadings={false} onClose={vi.fn()} />)
    await userEvent.click(await screen.findByRole('button', { name: 'Does spins work?' }))
    await userEvent.click(screen.getByLabelText('The disc lay the wrong way round'))
    await userEvent.click(screen.getByRole('button', { name: 'No' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ setting: { disc_side: 'wrong', board: '' } })
  })
})

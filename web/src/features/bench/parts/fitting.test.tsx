import { screen, within, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { beforeEach, describe, expect, test, vi } from 'vitest'
import type { Source, SwapPlan, Workbench } from '@/api/types'
import { Refusal, serve } from '@/lib/tests/server'
import { CustodyStrip, TakeOutDialog } from './custody-strip'
import { IdentifyDialog, IdentityNotice } from '../tape/drive-identity'
import { Levels } from './levels'
import { PartsThatFit } from './parts-that-fit'
import { PutBack } from './put-back'
import { SwapPlanDialog } from './swap-plan'
import { jobOf, onBench } from '../tests/kit'

const source = (more: Partial<Source> = {}): Source => ({ tag: 'P-0001', item: more.tag ?? 'P-0001', level: 'pickup', level_name: 'Bare pickup', code: 'VL-30', where: 'shelf', place: 'Drawer A2', verdict: 'transfers', verdict_name: 'fits with transfers', reasons: [], transfers: ['Follower'], health: 'new', works: [], fails: [], cents: 2400, wait_days: 0, most_days: 0, repairs: ['replace_pickup'], p_cures: 0.81, ...more })
const row = { rank: 'deck', rank_name: 'Deck', repair: 'replace_deck', name: 'Replace the deck', level: 'deck', minutes: 49, total_cents: 8600, part_cents: 4200, wait_days: 5, skill: 'practised', p_success: 0.92, lasts_months: 36, p_lasts_year: 0.73, why: 'starts afresh', item: 'O-0010' }
const pieces = [{ id: 'drive', name: 'Whole drive', rank: 'whole', functions: [], families: [] }, { id: 'board', name: 'Drive board', rank: 'part', functions: [], families: [] }]
const bench = (more: Partial<Workbench> = {}): Workbench => ({ version: 7, sources: [source()], together: null, levels: [row], pieces, ...more })
const served = (more: Partial<Workbench> = {}) => serve({ 'GET /api/jobs/K-0107/workbench': bench(more) })

describe('parts that fit', () => {
  test('a part of the shelf says what moves across and how likely it mends, and is taken by a tap', async () => {
    served()
    const send = onBench(<PartsThatFit />)
    expect(await screen.findByText(/mends this unit in 81%/)).toBeInTheDocument()
    expect(screen.getByText('moves across: Follower')).toBeInTheDocument()
    await userEvent.click(screen.getByRole('button', { name: 'Take it, P-0001' }))
    expect(send).toHaveBeenCalledWith({ do: 'take_part', part: 'P-0001', repair: 'replace_pickup' }, expect.any(String))
  })

  test('a piece of a donor is taken out of it', async () => {
    served({ sources: [source({ tag: 'D-0001', item: 'D-0001 bare pickup', where: 'donor' })] })
    const send = onBench(<PartsThatFit />)
    await userEvent.click(await screen.findByRole('button', { name: 'Take it out, D-0001 bare pickup' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ part: 'D-0001', repair: 'replace_pickup' })
  })

  test.each([
    ['on its way', { where: 'order' as const, tag: 'O-0009', wait_days: 3, most_days: 8 }, /about 3 days, nine in ten within 8/],
    ['fits in part only', { repairs: [], verdict: 'part' as const, verdict_name: 'fits in part' }, /Fits in part: 1 for testing only/],
  ])('what is %s is shown and cannot be taken', async (_, more, says) => {
    served({ sources: [source(more)] })
    onBench(<PartsThatFit />)
    expect(await screen.findByText(says)).toBeInTheDocument()
    expect(screen.queryByRole('button', { name: /Take it/ })).not.toBeInTheDocument()
  })

  test('a part that does not fit after all is said in one step, with the job as witness', async () => {
    const sent = serve({ 'GET /api/jobs/K-0107/workbench': bench(), 'POST /api/fits': { fits: [], sayings: [] } })
    onBench(<PartsThatFit />)
    await userEvent.click(await screen.findByRole('button', { name: 'Does not fit: P-0001' }))
    await userEvent.type(screen.getByLabelText('What was seen'), 'flex too short')
    await userEvent.click(screen.getByRole('button', { name: 'Write it down' }))
    expect(sent[0]?.body).toMatchObject({ level: 'pickup', code: 'VL-30', variant: 'V', verdict: 'no', reason: 'flex too short', said: 'K-0107' })
  })

  test('nothing that fits is said', async () => {
    served({ sources: [] })
    onBench(<PartsThatFit />)
    expect(await screen.findByText(/Nothing that is here, in a donor or on its way fits/)).toBeInTheDocument()
  })

  test('a taken part goes back with what it was seen to do', async () => {
    const part = { line: 9, repair: 'replace_pickup', name: 'Replace the pickup', item: 'P-0001', health: 'new', works: [], fails: [], price_cents: 0, wait_days: 0, is_donor: false, is_taken: true }
    const send = onBench(<PutBack part={part} />)
    await userEvent.click(screen.getByRole('button', { name: 'Back on the shelf' }))
    await userEvent.click(within(screen.getByRole('group', { name: 'reads' })).getByLabelText('Fails'))
    await userEvent.click(screen.getByRole('button', { name: 'Put it back' }))
    await waitFor(() => expect(send.mock.calls[0]?.[0]).toMatchObject({ line: 9, seen: { reads: false } }))
  })
})

describe('levels and plans', () => {
  const plan: SwapPlan = { level: 'drive', level_name: 'Whole drive', purpose: 'repair', stays: ['Lid'], moves: ['Drive board'], comes: ['Bare pickup'], steps: [{ id: 'there_1', text: 'Mains out.', depth: 'cover_off', cautions: ['Charge remains'], details: ['4 screws'] }, { id: 'there_2', text: 'Own board across.', depth: 'drive_open', cautions: [], details: [] }], back: [{ id: 'there_3', text: 'Own drive back in.', depth: 'drive_open', cautions: [], details: [] }], lost: 'Its pairing is lost.', shows: ['It spins, no more.'], warnings: ['Comes along.'] }
  beforeEach(() => void serve({ 'GET /api/jobs/K-0107/workbench': bench(), 'GET /api/jobs/K-0107/swap-plan': plan }))

  test('a level says money, chance, wait and how long it lasts, and is proposed from there', async () => {
    const send = onBench(<Levels />)
    const card = within((await screen.findByRole('heading', { name: 'Replace the deck' })).closest('li')!)
    expect(card.getByText('€86')).toBeInTheDocument()
    expect(card.getByText('cures in 92%, after a year still in 73%')).toBeInTheDocument()
    await userEvent.click(card.getByRole('button', { name: 'Propose this' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ repair: 'replace_deck' })
  })

  test('a plan says what is at stake and what moves, and a tick goes onto the tape by its step', async () => {
    const send = onBench(<SwapPlanDialog level="drive" onClose={vi.fn()} />)
    expect(await screen.findByText('Its pairing is lost.')).toBeInTheDocument()
    expect(screen.getByText('Drive board')).toBeInTheDocument()
    await userEvent.click(screen.getAllByRole('checkbox')[1]!)
    expect(send.mock.calls[0]?.[0]).toMatchObject({ do: 'tick', plan: 'drive', step: 'there_1', is_done: true })
    await userEvent.click(screen.getByRole('button', { name: 'Show how to put everything back' }))
    expect(screen.getByRole('list', { name: 'The way back' })).toHaveTextContent('Own drive back in.')
  })

  test('a plan that would lose the pairing is refused in words', async () => {
    serve({ 'GET /api/jobs/K-0107/swap-plan': new Refusal('A key chip from another console is never accepted', {}, 409) })
    onBench(<SwapPlanDialog level="chip" onClose={vi.fn()} />)
    expect(await screen.findByText('A key chip from another console is never accepted')).toBeInTheDocument()
  })
})

describe('what is out of the unit', () => {
  const out = { tag: 'K-0107-A', name: 'Drive board', place: 'tray 3', since: '2026-11-01T09:00:00Z', is_key: true }

  test('stands in sight with its place and that it is the key, and comes back by a tap', async () => {
    const send = onBench(<CustodyStrip />, jobOf({ custody: [out] }))
    expect(screen.getByText('carries the pairing: no other is accepted')).toBeInTheDocument()
    await userEvent.click(screen.getByRole('button', { name: 'It is back in' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ part: 'K-0107-A' })
  })

  test('it stays here only if somebody by name says so', async () => {
    const send = onBench(<CustodyStrip />, jobOf({ custody: [out] }))
    await userEvent.click(screen.getByRole('button', { name: 'The owner leaves it here' }))
    const name = screen.getByLabelText('Who said so')
    await userEvent.clear(name)
    expect(screen.getByRole('button', { name: 'Write it down' })).toBeDisabled()
    await userEvent.type(name, 'Wenna')
    await userEvent.click(screen.getByRole('button', { name: 'Write it down' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ part: 'K-0107-A', by_name: 'Wenna' })
  })

  test('nothing out is nothing shown', () => {
    onBench(<CustodyStrip />)
    expect(screen.queryByRole('region')).not.toBeInTheDocument()
  })

  test('taking one out asks which and where', async () => {
    served()
    const send = onBench(<TakeOutDialog onClose={vi.fn()} />)
    await userEvent.selectOptions(await screen.findByLabelText('Which part?'), await screen.findByRole('option', { name: 'Drive board' }))
    expect(screen.getByRole('button', { name: 'Tag it' })).toBeDisabled()
    await userEvent.type(screen.getByLabelText('Where does it lie?'), 'mat')
    await userEvent.click(screen.getByRole('button', { name: 'Tag it' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ level: 'board', place: 'mat' })
  })
})

describe('which drive it is', () => {
  const other = { sheet_id: 9, variant: 'V-2', p: 0.95, is_ours: false, against: [] }

  test('another drive than the sheet is said, with the way to take its sheet', async () => {
    const send = onBench(<IdentityNotice />, jobOf({ identity: [other, { ...other, variant: 'V', p: 0.04, is_ours: true }] }))
    expect(screen.getByText('This looks like a V-2, not a V')).toBeInTheDocument()
    await userEvent.click(screen.getByRole('button', { name: 'Take the sheet of V-2' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ looks: {}, sheet_id: 9 })
  })

  test.each([
    ['the likeliest is ours', [{ ...other, is_ours: true }]],
    ['nobody looked', []],
    ['it is no more than a guess', [{ ...other, p: 0.4 }]],
  ])('nothing is said where %s', (_, identity) => {
    onBench(<IdentityNotice />, jobOf({ identity }))
    expect(screen.queryByText(/This looks like/)).not.toBeInTheDocument()
  })

  test('a newer sheet is offered and not forced', async () => {
    const send = onBench(<IdentityNotice />, jobOf({ newer_sheet_id: 12 }))
    await userEvent.click(screen.getByRole('button', { name: 'Take the newer version' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ looks: {}, sheet_id: 12 })
  })

  test('what was seen goes onto the tape with the sheet that was picked', async () => {
    const send = onBench(<IdentifyDialog onClose={vi.fn()} identify={(_start, onPick) => <button type="button" onClick={() => onPick(9, { loader: 'slot' })}>pick</button>} />)
    await userEvent.click(screen.getByRole('button', { name: 'pick' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ looks: { loader: 'slot' }, sheet_id: 9 })
  })
})

import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, test, vi } from 'vitest'
import type { Job, TapeLine } from '@/api/types'
import { AgreeMat } from '../agree/agree-mat'
import { caution, jobOf, onBench } from '../tests/kit'
import { Depths } from '../frame/depths'
import { ConflictDialog } from '../frame/dialogs'
import { Gate } from '../frame/gate'
import { HandBackMat } from '../prove/hand-back-mat'
import { ProveMat } from '../prove/prove-mat'
import { RepairMat } from './repair-mat'
import { SheetSays } from '../frame/sheet-says'
import { Stub } from '../tape/stub'
import { Tape } from '../tape/tape'
import { TrialDialog } from '../tape/trial-dialog'

const step = (text: string, more: object = {}) => ({ id: text.toLowerCase().replaceAll(/\W+/g, '_'), text, mains: 'out', cautions: [], is_done: false, is_trial: false, reads_fuse: false, done_by: '', until: null, takes_part: false, part: '', is_inside: true, asks_photo: false, opens_to: 0, details: [], sheet: { said: [] as { text: string; is_confirmed: boolean }[], lacks: false }, ...more })
const procedure = (...steps: ReturnType<typeof step>[]): Job['procedure'] => ({
  repair: 'clean_lens', name: 'Clean the lens', skill: 'first week', tools: ['Swab'], transfers: ['Follower'], proves: 'All classes', goes_wrong: 'wet lens',
  fuse_rating: '1.5 A fast', uses_item: false, steps, trial: '',
}) // prettier-ignore
const line = (more: Partial<TapeLine>): TapeLine => ({ number: 1, at: '2026-03-01T09:12:00Z', by: 'Bram', kind: 'answer', is_finding: true, weighs: true, question: 'spins', text: 'Spins', struck_by: '', struck_why: '', weights: [], left_out: '', ...more })
const proposal = { repair: 'clean_lens', name: 'Clean the lens', total_cents: 7900, p_success: 0.62, p_lasts_year: null, end: '' }
const silent = { onFinding: vi.fn(), onReading: vi.fn(), onTrial: vi.fn(), onKeys: vi.fn() }

describe('the gate', () => {
  test('says what is missing', () => {
    onBench(<Gate />, jobOf({ missing: [{ code: 'trial', text: 'A trial before the screws go in.' }] }))
    expect(screen.getByText('A trial before the screws go in.')).toBeInTheDocument()
    expect(screen.queryByRole('button', { name: /Go on/ })).toBeNull()
  })

  test('opens with Enter when nothing is', async () => {
    const send = onBench(<Gate />)
    await userEvent.keyboard('{Enter}')
    expect(send).toHaveBeenCalledWith({ do: 'advance', stage: 'isolate' }, 'Go on to Agree')
  })

  test('goes back only with a reason', async () => {
    const send = onBench(<Gate backTo={['isolate']} />, jobOf({ stage: 'prove' }))
    await userEvent.click(screen.getByText('Go back a stage'))
    expect(screen.getByRole('button', { name: 'Back to Isolate' })).toBeDisabled()
    await userEvent.type(screen.getByLabelText('Why?'), 'fails warm')
    await userEvent.click(screen.getByRole('button', { name: 'Back to Isolate' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ to: 'isolate', why: 'fails warm' })
  })
})

describe('the tape', () => {
  test.each([
    [{ weights: [{ part: 'lens', name: 'lens', db: 3.8 }] }, 'clearly for lens'],
    [{ weights: [] }, 'no weight'],
    [{ left_out: 'not_on_this_drive' }, 'never on this model: no evidence'],
    [{ left_out: 'no_baseline' }, 'no baseline: no evidence'],
    [{ struck_by: 'Bram', struck_why: 'wrong unit' }, 'Struck by Bram: wrong unit'],
  ])('a line shows what it moved, or why not: %o', (more, text) => {
    onBench(<Tape {...silent} />, jobOf({ tape: [line(more)] }))
    expect(screen.getByLabelText('Tape')).toHaveTextContent(text)
  })

  test.each([
    ['', 'strike: Spins', { do: 'strike', line: 1, why: '' }],
    ['Bram', 'restore: Spins', { do: 'restore', line: 1 }],
  ])('struck by “%s”: %s', async (struck, name, ask) => {
    const send = onBench(<Tape {...silent} />, jobOf({ tape: [line({ struck_by: struck })] }))
    await userEvent.click(screen.getByRole('button', { name: new RegExp(name) }))
    expect(send).toHaveBeenCalledWith(ask, expect.any(String))
  })

  test('is never without a word', () => {
    onBench(<Tape {...silent} />)
    expect(screen.getByText(/Nothing on the tape yet/)).toBeInTheDocument()
  })
})

describe('agreeing', () => {
  test('over the limit it says by how much, and consent needs a way it was given', async () => {
    const send = onBench(<AgreeMat />, jobOf({ stage: 'agree', agree: { ...jobOf().agree, proposal } }))
    expect(screen.getByText('€54 over the €25 agreed so far: ask first')).toBeInTheDocument()
    expect(screen.getByRole('button', { name: 'Record: agrees' })).toBeDisabled()
    await userEvent.click(screen.getByLabelText('Phone'))
    await userEvent.click(screen.getByRole('button', { name: 'Record: agrees' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ is_agreed: true, amount_cents: 7900, by_name: 'Wenna', how: 'by phone' })
  })

  test('an amount that is none is refused at its field', async () => {
    onBench(<AgreeMat />, jobOf({ stage: 'agree', agree: { ...jobOf().agree, proposal } }))
    await userEvent.type(screen.getByLabelText('Up to, €'), 'x')
    expect(screen.getByRole('alert')).toHaveTextContent('Write an amount')
  })

  test('what the owner asks on their page stands first until it is answered', () => {
    onBench(<AgreeMat />, jobOf({ stage: 'agree', owner_asks: 'The owner asks: is my save safe?', agree: { ...jobOf().agree, proposal } }))
    expect(screen.getByText('The owner asks: is my save safe?')).toBeVisible()
  })

  test('a stopgap says that it is one', () => {
    onBench(<AgreeMat />, jobOf({ stage: 'agree', agree: { ...jobOf().agree, proposal, needs_consent: 'It costs the pickup’s life.' } }))
    expect(screen.getByText('Needs consent whatever it costs')).toBeInTheDocument()
  })
})

describe('repairing', () => {
  test('the caution stands whole at the step that is next', () => {
    onBench(<RepairMat onTrial={vi.fn()} />, jobOf({ stage: 'repair', power: 'out', procedure: procedure(step('Dry it', { cautions: [caution] }), step('Look')) }))
    expect(screen.getByText(/Invisible laser light/)).toBeVisible()
    expect(screen.getByText('Follower')).toBeVisible()
  })

  test('Enter marks the next step done, or sets the mains it needs', async () => {
    const missing = [{ code: 'steps', text: 'x' }]
    const job = jobOf({ stage: 'repair', missing, procedure: procedure(step('Pull the plug', { is_done: true }), step('Dry it')) })
    const send = onBench(<RepairMat onTrial={vi.fn()} />, job)
    await userEvent.keyboard('{Enter}')
    expect(send).toHaveBeenLastCalledWith({ do: 'mains', state: 'out' }, 'Mains out')
  })

  test('from standby the plug is pulled, it is never made live for a step that needs it out', async () => {
    const send = onBench(<RepairMat onTrial={vi.fn()} />, jobOf({ stage: 'repair', power: 'standby', procedure: procedure(step('Dry it')) }))
    await userEvent.click(screen.getByRole('button', { name: 'Plug is pulled: mains out' }))
    expect(send).toHaveBeenCalledWith({ do: 'mains', state: 'out' }, 'Mains out')
  })

  test('what has to dry is not done before its minute', async () => {
    const until = new Date(Date.now() + 60_000).toISOString()
    const send = onBench(<RepairMat onTrial={vi.fn()} />, jobOf({ stage: 'repair', power: 'out', missing: [{ code: 'steps', text: 'x' }], procedure: procedure(step('Dry it', { until })) }))
    expect(screen.getByRole('button', { name: /^Dry at/ })).toBeDisabled()
    await userEvent.keyboard('{Enter}')
    expect(send).not.toHaveBeenCalled()
  })

  test('what the sheet says stands at the step that is next, and that it says nothing', () => {
    const said = { said: [{ text: '4 min after the plug is pulled', is_confirmed: false }], lacks: false }
    onBench(<RepairMat onTrial={vi.fn()} />, jobOf({ stage: 'repair', procedure: procedure(step('Plug', { sheet: said }), step('Screws', { sheet: { said: [], lacks: true } })) }))
    expect(screen.getByText('4 min after the plug is pulled').closest('li')).toHaveTextContent('not confirmed')
    expect(screen.getByRole('link', { name: 'sheet of V' })).toHaveAttribute('href', '/drives/V')
    expect(screen.queryByText(/has no value for this yet/)).toBeNull()
  })

  test('the fuse that goes in is written down', async () => {
    const send = onBench(<RepairMat onTrial={vi.fn()} />, jobOf({ stage: 'repair', power: 'out', procedure: procedure(step('New fuse', { reads_fuse: true })) }))
    await userEvent.type(screen.getByLabelText('Printed on the fuse that goes in'), '1.5 A fast')
    await userEvent.click(screen.getByRole('button', { name: /is done/ }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ step: 'new_fuse', is_done: true, fuse: '1.5 A fast' })
  })

  test('a step is taken back', async () => {
    const send = onBench(<RepairMat onTrial={vi.fn()} />, jobOf({ stage: 'repair', procedure: procedure(step('Dry it', { is_done: true, done_by: 'Bram' })) }))
    await userEvent.click(screen.getByRole('button', { name: 'undo: Dry it' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ step: 'dry_it', is_done: false })
  })
})

describe('a trial', () => {
  test('of a part that went in asks what is known of it', async () => {
    const send = onBench(<TrialDialog repair="replace_pickup" onClose={vi.fn()} />)
    await userEvent.click(screen.getByRole('radio', { name: 'No change' }))
    expect(screen.getByRole('button', { name: 'Log the trial' })).toBeDisabled()
    await userEvent.click(screen.getByLabelText('Not known'))
    await userEvent.type(screen.getByLabelText('Tag of the part that went in'), 'P-1')
    await userEvent.click(screen.getByRole('button', { name: 'Log the trial' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ changes: [{ repair: 'replace_pickup', item: 'P-1', health: 'unknown' }], result: 'no_change', clean_passes: 0 })
  })

  test('needs the mains live', () => {
    onBench(<TrialDialog repair="clean_lens" onClose={vi.fn()} />, jobOf({ power: 'out' }))
    expect(screen.getByText('A trial needs the mains live; it is out')).toBeInTheDocument()
  })
})

describe('proving', () => {
  const check = { id: 'eject', title: 'Ejects with a disc in', how: 'From the button.', state: 'open' as const, tries: 1, done: 0, waits_for: '', question: '', is_timed: false, reference_s: null, may_be_left: false, why_left: '' }
  const proof = { ...jobOf().proof, checks: [check] }

  test('asks to close the unit first', async () => {
    const open = { stage: 'prove', depth: 2, proof, missing: [{ code: 'closed', text: 'x' }] } as const
    const send = onBench(<ProveMat />, jobOf({ ...open, missing: [...open.missing], power: 'out' }))
    expect(screen.getByRole('button', { name: /Works/ })).toBeDisabled()
    await userEvent.keyboard('{Enter}')
    expect(send).toHaveBeenCalledWith({ do: 'depth', depth: 0 }, 'Closed up')
  })

  test('a live unit is unplugged before it is closed', async () => {
    const send = onBench(<ProveMat />, jobOf({ stage: 'prove', depth: 2, proof, missing: [{ code: 'closed', text: 'x' }] }))
    await userEvent.keyboard('{Enter}')
    expect(send).toHaveBeenCalledWith({ do: 'mains', state: 'out' }, 'Mains out')
  })

  test('a check that is done ten times is counted, or said at once', async () => {
    const ten = { ...proof, checks: [{ ...check, tries: 10, done: 3 }] }
    const send = onBench(<ProveMat />, jobOf({ stage: 'prove', proof: ten }))
    expect(screen.getByText('3 of 10')).toBeInTheDocument()
    await userEvent.keyboard('1')
    await userEvent.click(screen.getByRole('button', { name: /All 7 were good/ }))
    expect(send.mock.calls.map(([ask]) => [ask.is_passed, ask.is_all])).toEqual([
      [true, false],
      [true, true],
    ])
  })

  test('when all is proven the plug is pulled, and then it goes on', async () => {
    const send = onBench(<ProveMat />, jobOf({ stage: 'prove', proof: { ...proof, checks: [], passes: 3 }, missing: [{ code: 'mains', text: 'Mains out' }] }))
    await userEvent.keyboard('{Enter}')
    expect(send).toHaveBeenCalledWith({ do: 'mains', state: 'out' }, 'Mains out')
  })

  test.each([
    ['1', true],
    ['2', false],
  ])('key %s records the next check as passed: %s', async (key, isPassed) => {
    const send = onBench(<ProveMat />, jobOf({ stage: 'prove', proof }))
    await userEvent.keyboard(key)
    expect(send.mock.calls[0]?.[0]).toMatchObject({ check: 'eject', is_passed: isPassed })
  })

  test('then counts clean passes', async () => {
    const send = onBench(<ProveMat />, jobOf({ stage: 'prove', proof: { ...proof, checks: [{ ...check, state: 'passed' as const }], passes: 1 }, missing: [{ code: 'passes', text: '2 more' }] }))
    expect(screen.getByText('1 of 3')).toBeInTheDocument()
    await userEvent.keyboard('1')
    await userEvent.keyboard('3')
    expect(send.mock.calls.map(([ask]) => ask)).toEqual([
      { do: 'pass', is_clean: true, count: 1 },
      { do: 'pass', is_clean: true, count: 2 },
    ])
  })
})

test.each([
  ['hand_back', 0.97, 'Repaired', 'Lens dirty.', 0.62, 'Lens dirty. (62%)'],
  ['closed', 0, 'Serviced', 'Cause not found for certain.', 0, /^Cause not found for certain\.\s*$/],
] as const)('at %s the outcome is said, and the cause as the owner is told it', (stage, p_fixed, outcome, cause, p_cause, told) => {
  onBench(<HandBackMat />, jobOf({ stage, agree: { ...jobOf().agree, proposal }, proof: { ...jobOf().proof, outcome, p_fixed, cause, p_cause } }))
  expect(screen.getByText(`${outcome}: Clean the lens`)).toBeInTheDocument()
  expect(screen.getByText('Cause').nextSibling).toHaveTextContent(told)
  expect(screen.getByRole('link', { name: /report/ })).toHaveAttribute('href', '/api/jobs/K-0107/report.pdf')
})

test('the stub says where the unit stands and what the owner said', () => {
  const stages: Job['stages'] = [{ id: 'taken_in', name: 'Taken in', state: 'done' }, { id: 'isolate', name: 'Isolate', state: 'now' }] // prettier-ignore
  onBench(<Stub onIdentify={() => undefined} onTakeOut={() => undefined} onOwner={() => undefined} onPhotos={() => undefined} onSounds={() => undefined} />, jobOf({ stages }))
  expect(screen.getByText('“Clicks.”')).toBeInTheDocument()
  expect(screen.getByText('15 min of looking so far')).toBeInTheDocument()
  expect(screen.getByText('Isolate').closest('li')).toHaveAttribute('aria-current', 'step')
})

test('how far it is open can be set by hand', async () => {
  const send = onBench(<Depths />)
  await userEvent.click(screen.getByRole('button', { name: 'Drive open' }))
  expect(send).toHaveBeenCalledWith({ do: 'depth', depth: 2 }, 'Drive open')
})

test('what lies open is put back on the mat, never by one press', async () => {
  const openMat = vi.fn()
  const send = onBench(<Depths />, jobOf({ depth: 2, mat: { has_order: true, left: 9, next_back: null } }), { openMat })
  await userEvent.click(screen.getByRole('button', { name: 'Closed up' }))
  expect(openMat).toHaveBeenCalledWith({ isBack: true })
  expect(send).not.toHaveBeenCalled()
})

test('a conflict shows both sides and leaves the choice', async () => {
  const pending = { ask: { do: 'remark' as const, text: 'My answer' }, key: 'k', version: 1, says: 'My answer' }
  const onResend = vi.fn()
  onBench(<ConflictDialog conflict={{ version: 8, changed: [{ by: 'Nia', at: '2026-03-01T09:00:00Z', text: 'Owner rang' }], pending }} onResend={onResend} onLeaveOut={vi.fn()} />)
  expect(screen.getByRole('dialog')).toHaveTextContent(/Owner rang.*My answer/)
  await userEvent.click(screen.getByRole('button', { name: 'Write mine now' }))
  expect(onResend).toHaveBeenCalledOnce()
})

test('what was wetted with cleaner is said until it is dry', () => {
  onBench(<Depths />, jobOf({ wet: ['Lens'] }))
  expect(screen.getByText(/Wetted with cleaner: lens/)).toBeInTheDocument()
})

test.each([
  [true, 1],
  [false, 0],
])('at a step of which the sheet speaks (may work: %s) what measures it stands beside', (mayWork, count) => {
  onBench(<SheetSays sheet={{ said: [{ text: 'BD trimmer: 410 to 520 Ω', is_confirmed: true }], lacks: false }} atStep />, jobOf(), { mayWork })
  expect(screen.queryAllByRole('button', { name: 'Measure' })).toHaveLength(count)
})

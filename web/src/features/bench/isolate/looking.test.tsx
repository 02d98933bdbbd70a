import { serve } from '@/lib/tests/server'
import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, test, vi } from 'vitest'
import { caution, entry, jobOf, move, onBench } from '../tests/kit'
import { ClassMatrix } from '../seen/class-matrix'
import { IsolateMat } from './isolate-mat'
import { NextMove } from './next-move'
import { Answers, Cautions } from '../frame/question-panel'
import { SeenMat } from '../seen/seen-mat'
import { Suspects } from './suspects'

const spins = entry('spins').question
const answered = (tries: number | null, failed: number | null) => ({ outcome: 'no', label: 'No', is_failure: true, tries, failed, seconds: null, time_says: '' })

describe('answers', () => {
  test.each([
    ['1', 'yes'],
    ['2', 'no'],
    ['0', 'cant_tell'],
  ])('key %s gives %s', async (key, outcome) => {
    const send = onBench(<Answers question={spins} />)
    await userEvent.keyboard(key)
    expect(send).toHaveBeenCalledWith({ do: 'answer', question: 'spins', outcome, source: 'bench' }, expect.any(String))
  })

  test('none is preselected, coloured or favoured', () => {
    onBench(<Answers question={spins} />)
    const looks = screen.getAllByRole('button').map((b) => b.className)
    expect(new Set(looks).size).toBe(1)
  })

  test('the wrong mains state blocks all but “can’t tell”, and one key sets it', async () => {
    const send = onBench(<Answers question={spins} />, jobOf({ power: 'out' }))
    await userEvent.keyboard('1')
    expect(send).not.toHaveBeenCalled()
    expect(screen.getByRole('button', { name: /Can't tell/ })).toBeEnabled()
    await userEvent.keyboard('{Enter}')
    expect(send).toHaveBeenCalledWith({ do: 'mains', state: 'live' }, 'Mains live')
  })

  test('a held-back mains cannot be set live', async () => {
    const send = onBench(<Answers question={spins} />, jobOf({ power: 'out', hazards: [{ code: 'rattle', text: 'Something rattles.', clears: '', until: null, bars: 'power' }] }))
    expect(screen.getByRole('button', { name: /Mains is live now/ })).toBeDisabled()
    await userEvent.keyboard('{Enter}')
    expect(send).not.toHaveBeenCalled()
  })

  test('asked again, the tries are counted', async () => {
    const send = onBench(<Answers question={spins} before={{ tries: 3, failed: 2, isFailure: (o) => o === 'no' }} />)
    await userEvent.keyboard('2')
    expect(send.mock.calls[0]?.[0]).toMatchObject({ tries: 4, failed: 3 })
  })

  test('who may not work here may look', () => {
    onBench(<Answers question={spins} />, jobOf(), { mayWork: false })
    for (const button of screen.getAllByRole('button')) expect(button).toBeDisabled()
  })

  test('what each answer would do is shown on W', async () => {
    onBench(<Answers question={spins} previews={[{ outcome: 'yes', label: 'Yes', chance: 0.3, top_fault: 'Lens dirty', top_p: 0.7, next_repair: 'Clean the lens' }]} />)
    await userEvent.keyboard('w')
    expect(screen.getByRole('row', { name: 'Yes 30% Lens dirty 70% Clean the lens' })).toBeInTheDocument()
  })
})

test('cautions stand in short, and whole on demand', async () => {
  onBench(<Cautions cautions={[caution]} />)
  expect(screen.getByText(caution.short)).toBeVisible()
  await userEvent.click(screen.getByText(caution.short))
  expect(screen.getByText(caution.text)).toBeVisible()
})

describe('the baseline', () => {
  test('asks the first stage that is open', () => {
    onBench(<SeenMat />, jobOf({ stage: 'fault_seen', baseline: [entry('power', { answer: answered(null, null) }), entry('spins')] }))
    expect(screen.getByRole('heading', { name: 'Does spins work?' })).toBeInTheDocument()
  })

  test('R asks the last one again with its count', async () => {
    const tape = [{ number: 1, at: '2026-03-01T09:00:00Z', by: 'B', kind: 'answer' as const, is_finding: true, weighs: true, question: 'power', text: '', struck_by: '', struck_why: '', weights: [], left_out: '' }]
    onBench(<SeenMat />, jobOf({ stage: 'fault_seen', tape, baseline: [entry('power', { answer: answered(3, 2) }), entry('spins')] }))
    await userEvent.keyboard('r')
    expect(screen.getByText('so far 2 of 3 failed')).toBeInTheDocument()
  })

  test('every stage says its state in words', () => {
    onBench(<SeenMat />, jobOf({ stage: 'fault_seen', baseline: [entry('power', { answer: answered(6, 3) }), entry('spins')] }))
    const [power, other] = within(screen.getByRole('list', { name: 'Baseline stages' })).getAllByRole('button')
    expect(power).toHaveAccessibleName(/No, 3 of 6 tries failed/)
    expect(other).toHaveAccessibleName(/not tried yet/)
  })
})

test('a class that the model never read is no evidence and cannot be picked', () => {
  onBench(<ClassMatrix entries={[entry('music_cd', { is_supported: false, nm: 780 }), entry('game_bd', { nm: 405 })]} current={null} onPick={vi.fn()} />)
  expect(screen.getByText('never read on this model: no evidence')).toBeInTheDocument()
  expect(screen.getAllByRole('button')).toHaveLength(1)
})

describe('suspects', () => {
  test('“not on the list” is always among them', () => {
    onBench(<Suspects diagnosis={jobOf().diagnosis} findings={1} />)
    expect(screen.getByText('Suspects after 1 finding')).toBeInTheDocument()
    expect(screen.getByText('Not on the list')).toBeInTheDocument()
  })

  test('an empty list of what would change the advice is a result', () => {
    onBench(<Suspects diagnosis={jobOf().diagnosis} findings={2} />)
    expect(screen.getByText(/stop asking/)).toBeInTheDocument()
  })
})

describe('the next move', () => {
  const plain = { isFirst: true, onTrial: vi.fn(), onDeeper: vi.fn() }

  test('a repair is proposed with Enter', async () => {
    const send = onBench(<NextMove move={move()} {...plain} />)
    await userEvent.keyboard('{Enter}')
    expect(send).toHaveBeenCalledWith({ do: 'propose', repair: 'clean_lens' }, 'Propose: Clean the lens')
  })

  test('handing back is proposed without a repair', async () => {
    const send = onBench(<NextMove move={move({ kind: 'stop', id: 'hand_back', title: 'Hand it back' })} {...plain} />)
    await userEvent.keyboard('{Enter}')
    expect(send.mock.calls[0]?.[0]).toMatchObject({ repair: '' })
  })

  test.each([
    [{ part_cents: 2600 }, '€26 parts'],
    [{ wait_days: 6 }, 'wait 6 days'],
    [{ depth: 0 }, 'nothing to open'],
    [{ saves_cents: 1100 }, 'saves about €11 on average'],
    [{ bench_min: 0.5 }, 'under 1 min'],
  ])('its price is said: %o', (more, text) => {
    onBench(<NextMove move={move(more)} {...plain} />)
    expect(screen.getByRole('region', { name: 'Next move' })).toHaveTextContent(text)
  })

  test('looks in the same go are named with their minutes, beside the first move alone', () => {
    const job = jobOf()
    const same_go = [{ id: 'a', title: 'Pickup flex', bench_min: 2 }, { id: 'b', title: 'Does it search', bench_min: 3 }]
    onBench(<NextMove move={move({})} {...plain} isFirst />, { ...job, diagnosis: { ...job.diagnosis, same_go } })
    expect(screen.getByRole('region', { name: 'Next move' })).toHaveTextContent('In the same go, 5 min more: Pickup flex · Does it search.')
  })

  test.each([
    [{ source: 'shelf', item: 'P-4' }, 'part is here: P-4'],
    [{ source: 'donor', item: 'D-1' }, 'part in a donor: D-1'],
  ])('it says where its part is: %o', (more, text) => {
    onBench(<NextMove move={move(more)} {...plain} />)
    expect(screen.getByRole('region', { name: 'Next move' })).toHaveTextContent(text)
  })

  test('a swap test is logged as the trial of its repair', async () => {
    const onTrial = vi.fn()
    onBench(<NextMove move={move({ kind: 'swap', id: 'swap:D-1', repair: 'replace_pickup', item: 'D-1' })} {...plain} onTrial={onTrial} />)
    await userEvent.click(screen.getByRole('button', { name: 'Tried it: log the trial' }))
    expect(onTrial).toHaveBeenCalledWith('replace_pickup')
  })
})

describe('isolating', () => {
  const mat = <IsolateMat plan={() => null} onTrial={vi.fn()} onPart={vi.fn()} />

  test('the schools stand beside the advice in the same money', async () => {
    serve({ 'GET /api/jobs/K-0107/schools': [{ id: 'pickup_first', name: 'Pickup first', expected_cents: 9700, first: 'Replace the pickup' }] })
    onBench(mat)
    await userEvent.keyboard('g')
    expect((await screen.findByText('Pickup first')).closest('div')).toHaveTextContent('€97')
    expect(screen.getByText(/The advice/).closest('div')).toHaveTextContent('€71')
  })

  test('N shows the alternative, and back', async () => {
    const job = jobOf()
    onBench(mat, { ...job, diagnosis: { ...job.diagnosis, moves: [move(), move({ id: 'replace_pickup', title: 'Replace the pickup' })] } })
    await userEvent.keyboard('n')
    expect(screen.getByRole('region', { name: 'Next move' })).toHaveTextContent('Instead')
    await userEvent.keyboard('n')
    expect(screen.getByRole('region', { name: 'Next move' })).toHaveTextContent('Clean the lens')
  })

  test('a finding that disagrees with the rest can be struck from its notice', async () => {
    const job = jobOf()
    const notices = [{ code: 'check_again', text: 'Please check again.', lines: [4] }]
    const tape = [{ number: 4, at: '2026-03-01T09:00:00Z', by: 'b', kind: 'answer' as const, is_finding: true, weighs: true, question: 'spins', text: 'Does not spin', struck_by: '', struck_why: '', weights: [], left_out: '' }]
    const send = onBench(mat, { ...job, tape, diagnosis: { ...job.diagnosis, notices } })
    await userEvent.click(screen.getByRole('button', { name: 'Strike “Does not spin”' }))
    expect(send.mock.calls[0]?.[0]).toEqual({ do: 'strike', line: 4, why: 'disagrees with the rest' })
  })

  test('an open path names its halving test, and its links say their state in words', () => {
    const job = jobOf()
    const link = (id: string, state: 'pass' | 'open', p: number) => ({ id, name: id, state, p, says: '' })
    const paths = [{ id: 'takes', title: 'Takes a disc', p: 0.8, links: [link('fuse', 'pass', 0.01), link('driver', 'open', 0.5)], next_ask: 'A ring around any joint?', before: 0.6, behind: 0.4 }]
    onBench(mat, { ...job, diagnosis: { ...job.diagnosis, paths } })
    expect(screen.getByRole('list', { name: 'Links: Takes a disc' })).toHaveTextContent('fuse✓ passed 1%driver· open 50%')
    expect(screen.getByText(/A ring around any joint\?/)).toBeInTheDocument()
  })

  test('a swap without change says that the original goes back, and a part can be taken off the list', async () => {
    const job = jobOf()
    const swaps = {
      rows: [{ line: 3, part: 'Pickup', repair: 'Replace the bare pickup', item: 'D-1', health: 'unknown', result: 'no_change', p_bad: 0.35, goes_back: true, stays: false }],
      parts: [{ line: 9, repair: 'replace_pickup', name: 'Replace the bare pickup', item: 'P-4', health: 'new', works: [], fails: [], price_cents: 2400, wait_days: 0, is_donor: false, is_taken: false }],
      next_item: 'D-2',
      next_repair: 'Replace the bare pickup',
      p_cures: 0.4,
      bits: 0.2,
      minutes: 40,
      items: [],
    }
    const send = onBench(mat, { ...job, diagnosis: { ...job.diagnosis, swaps } })
    await userEvent.keyboard('x')
    expect(screen.getByText(/tells something \(0\.20 bit\) in 40 min, the own part back in included/)).toBeInTheDocument()
    expect(screen.getByRole('row', { name: /Pickup D-1, not known 35% no change the original goes back in/ })).toBeInTheDocument()
    await userEvent.click(screen.getByRole('button', { name: 'Take off' }))
    expect(send.mock.calls[0]?.[0]).toMatchObject({ line: 9 })
  })
})

test.each([
  [['spins'], true, 1],
  [['belt_look'], true, 0],
  [['spins'], false, 0],
])('a question that can be measured (%s, may work: %s) says so', (measurable, mayWork, count) => {
  onBench(<Answers question={entry('spins').question} />, jobOf({ measurable }), { mayWork })
  expect(screen.queryAllByRole('button', { name: 'Measure it' })).toHaveLength(count)
})

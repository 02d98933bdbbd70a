import { cleanup, screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, test, vi } from 'vitest'
import { serve } from '@/lib/tests/server'
import { jobOf, onBench } from '../tests/kit'
import { ListenDialog } from './listen-dialog'
import type { Offer, Sound, SoundEvent, Sounds } from './sound-queries'
import { sayNoMicrophone } from './use-recorder'
import { loudness, wavOf } from './wav'

const event = (kind: string, start_s: number, more: Partial<SoundEvent> = {}): SoundEvent => ({ kind, name: kind, lane: 'sled', start_s, end_s: start_s + 1, sureness: 'sure', says: '', ...more })
const offer = (more: Partial<Offer> = {}): Offer => ({
  question: 'sled_sound',
  ask: 'What does the sled do?',
  outcome: 'hammers',
  says: 'Sled hammers its end stop',
  sureness: 'sure',
  why: '1.0 s of ticking.',
  from_s: 3,
  moves: [{ part: 'driver', name: 'Motor driver', db: 4.2 }],
  taken: null,
  seen: null,
  answers: [
    { id: 'hammers', name: 'Ticks' },
    { id: 'seeks', name: 'Seeks' },
  ],
  ...more,
})
const sound = (more: Partial<Sound> = {}): Sound => ({
  line: 7,
  hash: 'ab',
  did: 'insert',
  disc: '',
  microphone: 'left post',
  length_s: 20,
  grade: 'good',
  reasons: [],
  at: '2026-11-01T09:00:00Z',
  by: 'Bram',
  retold: 0,
  is_here: true,
  is_reference: false,
  is_older: false,
  picture_from_s: 0,
  picture_to_s: 20,
  says: 'rapid ticking',
  events: [event('ticking', 3), event('chirp', 8)],
  offers: [offer()],
  compared: [],
  ...more,
})
const told = (...sounds: Sound[]): Sounds => ({
  sounds,
  lanes: [{ id: 'sled', name: 'Sled', kinds: [{ id: 'ticking', name: 'rapid ticking' }, { id: 'chirp', name: 'chirp' }] }],
  did: [{ id: 'insert', name: 'A disc goes in' }, { id: 'eject', name: 'A disc comes out' }],
  kept: 'Kept for 180 days.',
})
const WHERE = '/api/jobs/K-0001/sounds'
const listening = (answer: unknown, more = {}) => {
  serve({ [`GET ${WHERE}`]: answer, ...more })
  return onBench(<ListenDialog onClose={vi.fn()} />, jobOf({ tag: 'K-0001' }))
}
const opened = async (s: Sound) => {
  const send = listening(told(s))
  await userEvent.click(await screen.findByRole('button', { name: /A disc goes in, 20 s/ }))
  return send
}
afterEach(() => vi.unstubAllGlobals())

test.each([
  [0, 'silent'],
  [0.01, 'quiet'],
  [0.3, 'good'],
  [1, 'loud'],
] as const)('a peak of %s is %s', (peak, word) => expect(loudness(peak)).toBe(word))

test('blocks become a WAV file of 16 bit', async () => {
  const bytes = new DataView(await wavOf([new Int16Array([1, 2]), new Int16Array([-3])], 44_100).arrayBuffer())
  expect([bytes.byteLength, bytes.getUint32(24, true), bytes.getUint16(34, true), bytes.getUint32(40, true), bytes.getInt16(48, true)]).toEqual([50, 44_100, 16, 6, -3])
})

test.each([
  ['NotAllowedError', 'may not use the microphone'],
  ['NotFoundError', 'No microphone was found'],
  ['NotReadableError', 'Another program'],
  ['', 'gives no microphone'],
])('a microphone that gives %s is said in words, with the way round it', (name, text) => {
  const words = sayNoMicrophone(name ? new DOMException('', name) : new Error('none'))
  expect(words).toContain(text)
  expect(words).toContain('from a file')
})

test('a refused microphone leaves the way by a file', async () => {
  vi.stubGlobal('AudioWorkletNode', class {})
  vi.stubGlobal('navigator', Object.assign(Object.create(navigator) as Navigator, { mediaDevices: { getUserMedia: () => Promise.reject(new DOMException('', 'NotAllowedError')) } }))
  listening(told())
  await userEvent.click(screen.getByRole('button', { name: 'Record the drive' }))
  expect(await screen.findByRole('alert')).toHaveTextContent('may not use the microphone')
  expect(screen.getByRole('button', { name: 'From a file' })).toBeEnabled()
})

test('a file is replayed, said what it is of, sent and kept; without an answer it stays here', async () => {
  URL.createObjectURL = () => 'blob:x'
  URL.revokeObjectURL = vi.fn()
  const send = listening(told())
  await screen.findByText(/No recording yet/)
  await userEvent.upload(screen.getByLabelText('A recording from a file'), new File([new Uint8Array(9)], 'a.wav', { type: 'audio/wav' }))
  await userEvent.click(screen.getByLabelText('A disc comes out'))
  await userEvent.click(screen.getByLabelText(/I knocked twice/))
  await userEvent.click(screen.getByRole('button', { name: 'Keep it, and listen' }))
  await screen.findByText('The recording is not kept')
  serve({ 'POST /api/sounds': { hash: 'ab', length_s: 9, grade: 'good', reasons: [], heard: '' }, [`GET ${WHERE}`]: told() })
  await userEvent.click(screen.getByRole('button', { name: 'Send it again' }))
  await waitFor(() => expect(send).toHaveBeenCalledWith({ do: 'keep_sound', hash: 'ab', did: 'eject', cover: 'on', disc: '', microphone: '', knocked: true }, 'A recording'))
})

test.each([
  ['I hear it too', 'hammers', true],
  ['Take it as heard', 'hammers', false],
])('“%s” takes the answer', async (name, outcome, listened) => {
  const send = await opened(sound())
  expect(screen.getByText(/towards Motor driver/)).toHaveTextContent('+4')
  await userEvent.click(screen.getByRole('button', { name }))
  expect(send).toHaveBeenCalledWith({ do: 'hear', sound: 7, question: 'sled_sound', outcome, listened }, 'Heard: Ticks')
})

test('who hears something else says what', async () => {
  const send = await opened(sound({ offers: [offer({ outcome: '', says: 'Can’t tell', moves: [] })] }))
  expect(screen.queryByRole('button', { name: 'Take it as heard' })).toBeNull()
  await userEvent.click(screen.getByRole('button', { name: 'I hear something else' }))
  await userEvent.click(screen.getByRole('button', { name: 'Seeks' }))
  expect(send.mock.calls[0]?.[0]).toMatchObject({ do: 'hear', outcome: 'seeks', listened: true })
})

test.each([
  [offer({ taken: 12 }), 'Taken, line 12', ['I hear it too', 'Take it as heard', 'I hear something else']],
  [offer({ seen: 5, moves: [] }), 'in line 5', ['Take it as heard']],
])('what was taken or seen already is not offered as heard', async (given, text, gone) => {
  await opened(sound({ offers: [given] }))
  expect(screen.getByText(new RegExp(text))).toBeVisible()
  for (const name of gone) expect(screen.queryByRole('button', { name })).toBeNull()
})

test('a sound that is picked plays, is called something else, or is dropped', async () => {
  HTMLMediaElement.prototype.play = () => Promise.resolve()
  const send = await opened(sound())
  await userEvent.click(within(screen.getByRole('list', { name: 'What is heard' })).getByRole('button', { name: /3\.0 to 4\.0 s/ }))
  expect(screen.getByLabelText<HTMLAudioElement>('Play the recording').currentTime).toBeCloseTo(2.7)
  await userEvent.selectOptions(screen.getByLabelText('It is'), 'chirp')
  expect(send.mock.calls[0]?.[0]).toMatchObject({ do: 'retell', sound: 7, events: [{ kind: 'chirp', start_s: 3 }, { kind: 'chirp', start_s: 8 }] })
  await userEvent.click(screen.getByRole('button', { name: 'It is nothing: drop it' }))
  expect(send.mock.calls[1]?.[0]).toMatchObject({ events: [{ kind: 'chirp', start_s: 8 }] })
})

test('a recording from before the last trial is played and read, and nothing is taken from it', async () => {
  await opened(sound({ is_older: true }))
  expect(screen.getByText(/Something has been tried since/)).toBeVisible()
  for (const name of ['I hear it too', 'Take it as heard', 'I hear something else']) expect(screen.queryByRole('button', { name })).toBeNull()
})

test('who doubts an offer listens where it rests', async () => {
  HTMLMediaElement.prototype.play = () => Promise.resolve()
  await opened(sound({ offers: [offer({ from_s: 7 })] }))
  await userEvent.click(screen.getByRole('button', { name: 'Play it there' }))
  expect(screen.getByLabelText<HTMLAudioElement>('Play the recording').currentTime).toBeCloseTo(6.7)
})

test('what was put right is undone by striking that line', async () => {
  const send = await opened(sound({ retold: 9 }))
  await userEvent.click(screen.getByRole('button', { name: 'Undo what was put right last' }))
  expect(send.mock.calls[0]?.[0]).toMatchObject({ do: 'strike', line: 9 })
})

test('a poor recording says why, one whose time is over that it is gone, and a closed job records none', async () => {
  await opened(sound({ grade: 'poor', reasons: ['Too quiet: come nearer.'] }))
  expect(screen.getByText('Too quiet: come nearer.')).toBeVisible()
  cleanup()
  await opened(sound({ is_here: false }))
  expect(screen.getByText('The recording itself is gone')).toBeVisible()
  expect(screen.queryByLabelText('Play the recording')).toBeNull()
  cleanup()
  serve({ [`GET ${WHERE}`]: told() })
  onBench(<ListenDialog onClose={vi.fn()} />, jobOf({ tag: 'K-0001' }), { mayWork: false })
  expect(screen.queryByRole('button', { name: 'Record the drive' })).toBeNull()
})

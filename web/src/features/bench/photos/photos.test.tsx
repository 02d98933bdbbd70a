import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, test, vi } from 'vitest'
import type { Photo } from '@/api/types'
import { serve } from '@/lib/tests/server'
import { jobOf, onBench } from '../tests/kit'
import { BeforeAndNow } from './before-and-now'
import { PhotosForOwner } from './for-owner'
import { PhotosDialog } from './photos-dialog'
import { TakePhoto } from './take-photo'

const photo = (more: Partial<Photo> = {}): Photo => ({ line: 9, hash: 'ab', of: 'drive:Plug', moment: 'before', about: 'Plug', for_owner: false, at: '2026-11-01T09:00:00Z', by: 'Bram', dots: [], ...more })
const file = (size = 10) => Object.defineProperty(new File([new Uint8Array(10)], 'a.jpg', { type: 'image/jpeg' }), 'size', { value: size })
const taking = () => onBench(<TakePhoto of="drive:Plug" moment="before" label="Photo before" />)
const camera = (getUserMedia: unknown) => vi.stubGlobal('navigator', Object.assign(Object.create(navigator) as Navigator, { mediaDevices: { getUserMedia } }))
afterEach(() => vi.unstubAllGlobals())

test('a file is sent, and then kept with its step', async () => {
  serve({ 'POST /api/photos': { hash: 'ab', width: 4, height: 3 } })
  const send = taking()
  await userEvent.upload(screen.getByLabelText('Photo before, from a file'), file())
  await waitFor(() => expect(send).toHaveBeenCalledWith({ do: 'photograph', hash: 'ab', of: 'drive:Plug', moment: 'before', says: '', for_owner: false }, 'Photo before'))
})

test('a photo that arrives after the screen has gone on is kept all the same', async () => {
  let arrive: (told: object) => void = () => undefined
  serve({ 'POST /api/photos': new Promise((done) => (arrive = done)) })
  const send = taking()
  await userEvent.upload(screen.getByLabelText('Photo before, from a file'), file())
  cleanup()
  arrive({ hash: 'ab', width: 4, height: 3 })
  await waitFor(() => expect(send).toHaveBeenCalledOnce())
})

test('what is too large is said before it is sent', async () => {
  taking()
  await userEvent.upload(screen.getByLabelText('Photo before, from a file'), file(12_500_000))
  expect(await screen.findByRole('alert')).toHaveTextContent('12.5 MB')
})

test.each([
  ['NotAllowedError', 'may not use the camera'],
  ['NotFoundError', 'No camera was found'],
  ['NotReadableError', 'Another program'],
])('a camera that gives %s is said in words, with the way round it', async (name, text) => {
  camera(() => Promise.reject(new DOMException('', name)))
  taking()
  await userEvent.click(screen.getByRole('button', { name: 'Photo before' }))
  expect(await screen.findByRole('alert')).toHaveTextContent(text)
  await userEvent.click(screen.getByRole('button', { name: 'Understood' }))
  expect(screen.getByRole('button', { name: 'From a file' })).toBeEnabled()
})

test('the light of the camera goes out when it is closed', async () => {
  const stop = vi.fn()
  camera(() => Promise.resolve({ getTracks: () => [{ stop }] }))
  HTMLVideoElement.prototype.play = () => Promise.resolve()
  taking()
  await userEvent.click(screen.getByRole('button', { name: 'Photo before' }))
  await screen.findByRole('button', { name: 'Take it' })
  await userEvent.click(screen.getByRole('button', { name: 'No photo now' }))
  expect(stop).toHaveBeenCalled()
})

test('before and now stand side by side, the newest of each, of that step alone', () => {
  onBench(<BeforeAndNow of="drive:Plug" />, jobOf({ photos: [photo(), photo({ line: 10, hash: 'cd' }), photo({ line: 11, moment: 'now', hash: 'ef' }), photo({ line: 12, of: 'drive:Roof', hash: 'x' })] }))
  expect(screen.getAllByRole('img').map((i) => i.getAttribute('src'))).toEqual(['/api/photos/cd', '/api/photos/ef'])
})

test('a dot is set where the photo is pressed, named, and kept', async () => {
  const send = onBench(<PhotosDialog onClose={vi.fn()} />, jobOf({ photos: [photo()] }))
  await userEvent.click(screen.getByRole('button', { name: 'Open the photo Plug' }))
  const picture = screen.getByRole('img').parentElement!
  picture.getBoundingClientRect = () => ({ left: 0, top: 0, width: 200, height: 100 }) as DOMRect
  fireEvent.click(picture, { clientX: 50, clientY: 90 })
  await userEvent.type(screen.getByLabelText('Dot 1'), 'bar')
  await userEvent.click(screen.getByLabelText(/The owner may have it/))
  await userEvent.click(screen.getByRole('button', { name: 'Keep it' }))
  expect(send).toHaveBeenCalledWith({ do: 'mark_photo', line: 9, dots: [{ x: 25, y: 90, says: 'bar' }], for_owner: true }, 'Dots on a photo')
})

test('a photo that is not of this job is taken off it, and a closed job takes none', async () => {
  const send = onBench(<PhotosDialog onClose={vi.fn()} />, jobOf({ photos: [photo()] }))
  await userEvent.click(screen.getByRole('button', { name: 'Open the photo Plug' }))
  await userEvent.click(screen.getByRole('button', { name: 'Off this job' }))
  expect(send.mock.calls[0]?.[0]).toMatchObject({ do: 'strike', line: 9 })
  cleanup()
  onBench(<PhotosDialog onClose={vi.fn()} />, jobOf({ stage: 'closed' }))
  expect(screen.queryByRole('button', { name: 'Take a photo' })).toBeNull()
})

test('without a photo it is said what one is good for', () => {
  onBench(<PhotosDialog onClose={vi.fn()} />)
  expect(screen.getByText(/saves a search at closing/)).toBeVisible()
})

test('before the unit goes a press puts a photo on the report, or takes it off', async () => {
  const send = onBench(<PhotosForOwner />, jobOf({ stage: 'hand_back', photos: [photo(), photo({ line: 11, hash: 'cd', for_owner: true })] }))
  const [first, second] = screen.getAllByRole('button')
  await userEvent.click(first!)
  await userEvent.click(second!)
  expect(send.mock.calls.map(([ask]) => [ask.line, ask.for_owner])).toEqual([
    [9, true],
    [11, false],
  ])
})

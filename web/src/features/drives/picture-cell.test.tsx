import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { Refusal, serve, showAt } from '@/lib/tests/server'
import { PictureCell } from './picture-cell'

const LABEL = 'Opening order, row 1, Picture'
const cell = (value: string, answer: unknown = { hash: 'cd', width: 1, height: 1 }) => {
  const onChange = vi.fn()
  serve({ 'POST /api/photos': answer })
  showAt('/drives', '/drives', <PictureCell label={LABEL} value={value} isRefused={false} onChange={onChange} />)
  return onChange
}
const pick = () => userEvent.upload(screen.getByLabelText(`${LABEL}, from a file`, { selector: 'input' }), new File(['x'], 'flex.jpg', { type: 'image/jpeg' }))

test('a file becomes the picture of the row', async () => {
  const onChange = cell('')
  await pick()
  expect(onChange).toHaveBeenCalledWith('cd')
})

test('a picture is shown, and can be taken out', async () => {
  const onChange = cell('ab')
  expect(screen.getByRole('img', { name: LABEL })).toHaveAttribute('src', '/api/photos/ab')
  await userEvent.click(screen.getByRole('button', { name: `${LABEL}: none` }))
  expect(onChange).toHaveBeenCalledWith(null)
})

test('what is no picture is said, and the row stays as it was', async () => {
  const onChange = cell('ab', new Refusal('This is no picture.'))
  await pick()
  expect(await screen.findByRole('alert')).toBeVisible()
  expect(onChange).not.toHaveBeenCalled()
})

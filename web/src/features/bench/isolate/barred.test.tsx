import { screen, within } from '@testing-library/react'
import { expect, test } from 'vitest'
import { jobOf, onBench } from '../tests/kit'
import { Barred } from './barred'

const none = jobOf()
const held = jobOf({ diagnosis: { ...none.diagnosis, barred: [{ why: 'Power is kept off: wet cleaner.', titles: ['Does it spin?', 'Does it eject?'] }] } })
test('each reason stands once, with what it bars', () => {
  onBench(<Barred />, held)
  const reason = within(screen.getByRole('region', { name: 'Not possible now' }))
  expect(reason.getByText(/Power is kept off/)).toHaveTextContent('2 steps.')
  expect(reason.getByText('Does it eject?')).toBeInTheDocument()
})

test('nothing barred is said as such', () => {
  onBench(<Barred />, none)
  expect(screen.getByRole('heading', { name: 'Everything on the list can be done now' })).toBeInTheDocument()
})

test('the way to what the shop has stands beside it', () => {
  onBench(<Barred />, none)
  expect(screen.getByRole('link', { name: 'What this shop has' })).toHaveAttribute('href', '/shop/has')
})

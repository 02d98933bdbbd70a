import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import { entry, jobOf, onBench } from '../tests/kit'
import { FitDialog } from './fit-dialog'
import { OnTrialStrip, Places } from './on-trial'

const own = jobOf()
const fitted = { repair: 'replace_pickup', name: 'Bare pickup', item: 'P-4', health: 'new' }
const tried = (more = {}) => ({ configuration: { places: [{ name: 'Supply', item: '' }, { name: 'Pickup', item: 'P-4' }], on_trial: [fitted], asks: [entry('spins').question] }, ...more })

test('with its own parts in it nothing is said, and every place says so', () => {
  onBench(<><OnTrialStrip /><Places onFit={() => {}} /></>)
  expect(screen.queryByRole('region', { name: 'In it for trying' })).toBeNull()
  expect(screen.getByText('Every place holds the unit’s own part.')).toBeInTheDocument()
})

test('what sits in it is said in the picture and in words', () => {
  onBench(<Places onFit={() => {}} />, jobOf(tried()))
  expect(within(screen.getByRole('list', { name: 'Places of the unit' })).getByText('P-4')).toBeInTheDocument()
  expect(screen.getByText('Pickup: P-4. Everything else is the unit’s own.')).toBeInTheDocument()
})

test('own parts go back with the mains out', async () => {
  const send = onBench(<OnTrialStrip />, jobOf(tried({ power: 'out' })))
  expect(screen.getByRole('region', { name: 'In it for trying' })).toHaveTextContent('P-4 (bare pickup, new)')
  await userEvent.click(screen.getByRole('button', { name: 'Own parts are back in' }))
  expect(send.mock.calls[0]?.[0]).toEqual({ do: 'fit', changes: [] })
})

test('with the mains live the plug comes first', async () => {
  const send = onBench(<OnTrialStrip />, jobOf(tried({ power: 'live' })))
  expect(screen.queryByRole('button', { name: 'Own parts are back in' })).toBeNull()
  await userEvent.click(screen.getByRole('button', { name: /mains out/i }))
  expect(send.mock.calls[0]?.[0]).toEqual({ do: 'mains', state: 'out' })
})

test('what failed with the own part is asked again from the strip', async () => {
  const send = onBench(<OnTrialStrip />, jobOf(tried({ power: 'live' })))
  await userEvent.click(screen.getByRole('button', { name: 'spins' }))
  await screen.findByRole('dialog')
  await userEvent.keyboard('2') // the dialog has the digits
  expect(send.mock.calls[0]?.[0]).toMatchObject({ do: 'answer', question: 'spins', outcome: 'no', source: 'bench' })
})

test('a part goes in beside what is in already', async () => {
  const more = [{ id: 'replace_deck', name: 'Replace the deck', uses_item: true, takes: 'Deck' }]
  const send = onBench(<FitDialog onClose={() => {}} />, jobOf(tried({ power: 'out', repairs: [...own.repairs, ...more] })))
  expect(screen.getByRole('button', { name: 'It is in' })).toBeDisabled()
  await userEvent.selectOptions(screen.getByLabelText('What goes in?'), 'replace_deck')
  await userEvent.type(screen.getByLabelText('Its tag, or the donor’s'), ' D-1 ')
  await userEvent.click(screen.getByText('Not known'))
  await userEvent.click(screen.getByText('spins'))
  await userEvent.click(screen.getByRole('button', { name: 'It is in' }))
  const p4 = { repair: 'replace_pickup', item: 'P-4', health: 'new' }
  expect(send.mock.calls[0]?.[0]).toEqual({ do: 'fit', changes: [p4, { repair: 'replace_deck', item: 'D-1', health: 'unknown', works: ['spins'] }] })
})

test('nothing goes in while the mains is live', () => {
  onBench(<FitDialog onClose={() => {}} />, jobOf({ power: 'live' }))
  expect(screen.getByText(/A part goes in with the mains out/)).toBeInTheDocument()
})

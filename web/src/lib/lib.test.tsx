import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test, vi } from 'vitest'
import { daysUntil, promise, sinceWhen } from './dates'
import { useKept } from './kept'
import { centsOf, money } from './money'
import { useKeys, type Keys } from './use-keys'
import { decimalOf, wholeOf } from './whole'
import { decibans, discClass, percent } from './words'

test.each([
  ['45', 4500],
  ['45.5', 4550],
  ['45,05', 4505],
  [' € 7 ', 700],
  ['0', 0],
  ['-3', null],
  ['1e3', null],
  ['45.505', null],
  ['forty', null],
  ['', null],
])('%j typed is %j cents', (typed, cents) => expect(centsOf(typed)).toBe(cents))

test.each([
  [4500, '€45'],
  [4550, '€45.50'],
  [5, '€0.05'],
])('%i cents read %s', (cents, text) => expect(money(cents)).toBe(text))

test.each([
  [0, '<1%'],
  [0.004, '<1%'],
  [0.5, '50%'],
  [0.996, '>99%'],
  [1, '>99%'],
])('a probability of %d never reads as certain: %s', (p, text) => expect(percent(p)).toBe(text))

test.each([
  [1.8, '+1.8'],
  [-13.2, '−13'],
  [-8, '−8'],
])('%d decibans read %s', (db, text) => expect(decibans(db)).toBe(text))

test('a disc class is written as the trade writes it', () => expect(discClass('game_bd')).toBe('game BD'))

test.each([
  ['1', 1],
  [' 12 ', 12],
  ['0', null],
  ['2.5', null],
  ['-1', null],
  ['99999', null],
  ['', null],
])('%j typed is the whole number %j', (typed, n) => expect(wholeOf(typed)).toBe(n))

test.each([
  ['8', 8],
  [' 8,5 ', 8.5],
  ['0.25', 0.25],
  ['', null],
  ['-1', null],
  ['8 mm', null],
  ['1,2,3', null],
])('%j typed is the number %j', (typed, n) => expect(decimalOf(typed)).toBe(n))

const today = new Date(2026, 2, 28, 23, 30)
test.each([
  ['2026-03-27', '1 day late'],
  ['2026-03-28', 'today'],
  ['2026-03-29', 'tomorrow'],
  ['2026-03-31', 'Tue 31 Mar'],
  [null, 'no promise yet'],
])('a promise for %s reads %s, across the change of the clocks', (date, text) => expect(promise(date, today)).toBe(text))

test.each([
  ['2026-03-28T20:00:00', 'since today'],
  ['2026-03-27T20:00:00', 'for 1 day'],
  ['2026-03-20T20:00:00', 'for 8 days'],
])('what is out since %s is out %s', (iso, text) => expect(sinceWhen(iso, today)).toBe(text))

test('days are counted by the calendar, not by hours', () => expect(daysUntil('2026-04-01', today)).toBe(4))

function Keyed({ keys }: { keys: Keys }) {
  useKeys(keys)
  return (
    <>
      <input aria-label="words" />
      <button>Go</button>
    </>
  )
}

test('keys act on the screen, and are quiet while somebody types', async () => {
  const one = vi.fn()
  render(<Keyed keys={{ '1': one }} />)
  await userEvent.keyboard('1')
  await userEvent.type(screen.getByLabelText('words'), '1')
  await userEvent.keyboard('{Control>}1{/Control}')
  expect(one).toHaveBeenCalledTimes(1)
})

test('Enter on a button is the button’s own', async () => {
  const enter = vi.fn()
  render(<Keyed keys={{ Enter: enter }} />)
  screen.getByRole('button').focus()
  await userEvent.keyboard('{Enter}')
  expect(enter).not.toHaveBeenCalled()
})

function Draft() {
  const [text, setText, clear] = useKept('draft', '')
  return (
    <>
      <input aria-label="draft" value={text} onChange={(e) => setText(e.target.value)} />
      <button onClick={clear}>Clear</button>
    </>
  )
}

test('what was typed outlives the page until it is cleared', async () => {
  const page = render(<Draft />)
  await userEvent.type(screen.getByLabelText('draft'), 'clicks')
  page.unmount()
  render(<Draft />)
  expect(screen.getByLabelText('draft')).toHaveValue('clicks')
  await userEvent.click(screen.getByText('Clear'))
  expect(localStorage.length).toBe(0)
})

import { fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useKeys } from './use-keys'
import { TAG, useWedge } from './wedge'

const heard = vi.fn()
const answered = vi.fn()

function Bench() {
  useWedge(heard)
  useKeys({ 1: () => answered('1'), 0: () => answered('0'), p: () => answered('p'), Enter: () => answered('Enter') })
  return <input aria-label="words" />
}

beforeEach(() => {
  vi.useFakeTimers()
  heard.mockReset()
  answered.mockReset()
  render(<Bench />)
})
afterEach(() => vi.useRealTimers())

const type = (text: string, gap = 5, target: Element = document.body) => {
  for (const key of text) {
    fireEvent.keyDown(target, { key })
    vi.advanceTimersByTime(gap)
  }
}

test.each(['K-0107', 'P-0001', 'D-0003', 'O-0009', 'K-0107-A'])('%s, typed as a scanner types, is heard and reaches nothing else', (tag) => {
  type(tag)
  fireEvent.keyDown(document.body, { key: 'Enter' })
  expect(heard).toHaveBeenCalledExactlyOnceWith(tag)
  expect(answered).not.toHaveBeenCalled()
})

test('a scanner with the shift lock on is understood', () => {
  type('k-0107')
  fireEvent.keyDown(document.body, { key: 'Enter' })
  expect(heard).toHaveBeenCalledWith('K-0107')
})

test("a hand's single key is passed on after a moment", () => {
  type('p', 100)
  expect(answered).toHaveBeenCalledExactlyOnceWith('p')
})

test('digits of a hand are answers at once', () => {
  type('10', 200)
  expect(answered.mock.calls.map(([k]) => k as string)).toEqual(['1', '0'])
})

test.each(['K-01', 'PPP', 'P-00A1'])('%s, ended by Enter, is no tag and answers nothing', (text) => {
  type(text)
  fireEvent.keyDown(document.body, { key: 'Enter' })
  expect(heard).not.toHaveBeenCalled()
  expect(answered).not.toHaveBeenCalledWith('0')
})

test('what is typed into a field stays in the field', () => {
  type('P-0001', 5, screen.getByLabelText('words'))
  fireEvent.keyDown(screen.getByLabelText('words'), { key: 'Enter' })
  expect(heard).not.toHaveBeenCalled()
})

test.each([
  ['K-0107', true],
  ['K-100001', true],
  ['K-0107-B', true],
  ['X-0107', false],
  ['K0107', false],
  ['K-0107-', false],
])('%s is a tag: %s', (text, isTag) => expect(TAG.test(text)).toBe(isTag))

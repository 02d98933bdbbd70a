import '@testing-library/jest-dom/vitest'
import { cleanup, configure } from '@testing-library/react'
import { afterEach } from 'vitest'

// a test sees one day, a Wednesday morning, whatever day it is played on: which days are offered follows the weekday
const RealDate = Date
const ahead = RealDate.parse('2026-03-04T10:00:00Z') - RealDate.now()
globalThis.Date = class extends RealDate {
  constructor(...at: [] | [string | number]) {
    if (at.length === 0) super(RealDate.now() + ahead)
    else super(...at)
  }
  static override now() {
    return RealDate.now() + ahead
  }
} as DateConstructor

class NoResize {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver ??= NoResize as unknown as typeof ResizeObserver
// a busy machine is slow, not wrong
configure({ asyncUtilTimeout: 5_000 })
afterEach(() => {
  cleanup()
  localStorage.clear()
})

// the stand-in for a browser has no layout, and scrolls nothing
Element.prototype.scrollIntoView = () => undefined

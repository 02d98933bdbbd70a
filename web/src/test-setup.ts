import '@testing-library/jest-dom/vitest'
import { cleanup, configure } from '@testing-library/react'
import { afterEach } from 'vitest'

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

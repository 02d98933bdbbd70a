import { useEffect, useRef } from 'react'

/** Tags as they are printed: K-0107 a job, P-0012 a part, D-0003 a donor, O-0004 an order, K-0107-A an owner's part. */
export const TAG = /^[KPDO]-\d{3,6}(-[A-Z])?$/
const STARTS = /^[kpdo]$/i
/** A wedge scanner types faster than this; a hand does not. */
const GAP_MS = 60

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))

const isNotForUs = (event: KeyboardEvent): boolean =>
  event instanceof CustomKey || isTyping(event.target) || event.ctrlKey || event.altKey || event.metaKey

/**
 * Hears a wedge scanner anywhere on the page: a tag typed fast and ended by Enter. While it may be one, its keys reach nothing else,
 * for a digit would answer a question. What turns out to be a hand's single key is passed on.
 */
export function useWedge(onTag: (tag: string) => void): void {
  const act = useRef(onTag)
  useEffect(() => {
    act.current = onTag
  })
  useEffect(() => {
    let held = ''
    let first: KeyboardEvent | null = null
    let timer = 0
    const letGo = () => {
      window.clearTimeout(timer)
      const [only, key] = [held.length === 1 ? first : null, first?.key]
      held = ''
      first = null
      if (only && key) only.target?.dispatchEvent(new CustomKey(key))
    }
    const onKey = (event: KeyboardEvent) => {
      if (isNotForUs(event)) return
      const isMore = held !== '' && /^[-\dA-Za-z]$/.test(event.key)
      const isEnd = held !== '' && event.key === 'Enter'
      if (!isMore && !isEnd && !(held === '' && STARTS.test(event.key))) {
        if (held && event.key !== 'Shift') letGo()
        return
      }
      event.preventDefault()
      event.stopImmediatePropagation()
      window.clearTimeout(timer)
      if (isEnd) {
        const tag = held.toUpperCase()
        if (TAG.test(tag)) {
          held = ''
          first = null
          act.current(tag)
        } else letGo()
        return
      }
      first ??= event
      held += event.key
      timer = window.setTimeout(letGo, GAP_MS)
    }
    window.addEventListener('keydown', onKey, { capture: true })
    return () => {
      window.clearTimeout(timer)
      window.removeEventListener('keydown', onKey, { capture: true })
    }
  }, [])
}

/** A key that was held back and is passed on. */
class CustomKey extends KeyboardEvent {
  constructor(key: string) {
    super('keydown', { key, bubbles: true, cancelable: true })
  }
}

import { useEffect, useRef } from 'react'

export type Keys = Record<string, (() => void) | undefined>

/** A digit types nothing into a choice that was just clicked. */
const takesDigits = (target: HTMLElement): boolean => !(target instanceof HTMLInputElement && ['radio', 'checkbox'].includes(target.type))

const isTyping = (target: EventTarget | null, key: string): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || (['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) && (takesDigits(target) || !/^\d$/.test(key))))

const isControl = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('button, a, summary, [role="option"]') !== null

/** Single keys for the whole screen. Quiet while somebody types, with Ctrl, Alt or Meta held, and, for what is not in one, while a dialog is open. */
export function useKeys(keys: Keys, { inDialog = false } = {}): void {
  const now = useRef(keys)
  useEffect(() => {
    now.current = keys
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.altKey || event.metaKey || event.repeat || event.defaultPrevented) return
      if (isTyping(event.target, event.key) || (!inDialog && document.querySelector('[role="dialog"]'))) return
      if (event.key === 'Enter' && isControl(event.target)) return
      const act = now.current[event.key.length === 1 ? event.key.toLowerCase() : event.key]
      if (!act) return
      event.preventDefault()
      act()
    }
    document.addEventListener('keydown', onKey)
    return () => document.removeEventListener('keydown', onKey)
  }, [inDialog])
}

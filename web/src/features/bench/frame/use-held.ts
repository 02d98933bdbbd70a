import { useEffect, useRef } from 'react'

/** What was pressed is gone with its question: the focus goes to the heading of what comes next, not to the top of the page. */
export function useHeld() {
  const heading = useRef<HTMLHeadingElement>(null)
  useEffect(() => {
    if (document.activeElement === document.body) heading.current?.focus({ preventScroll: true })
  }, [])
  return heading
}

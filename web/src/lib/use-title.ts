import { useEffect } from 'react'

/** Each page has a title of its own: in the browser's tabs, its history, and for who cannot see it. */
export function useTitle(title: string): void {
  useEffect(() => {
    document.title = `${title.trim()} · Tidy Spindle`
  }, [title])
}

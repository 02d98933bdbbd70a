import { createContext, useContext, type ReactNode } from 'react'
import { createPortal } from 'react-dom'

/** Where the bar is drawn; null while there is none, as in a dialog or a test of one piece. */
export const BarPlace = createContext<HTMLElement | null>(null)

/** What a hand presses now, in the one place that never moves: the foot of the mat. Without a bar it stands where it is written. */
export function Bar({ children }: { children: ReactNode }) {
  const place = useContext(BarPlace)
  return place ? createPortal(children, place) : <>{children}</>
}

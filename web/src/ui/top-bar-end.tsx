import { useSyncExternalStore, type ReactNode } from 'react'
import { createPortal } from 'react-dom'

export const TOP_BAR_END = 'top-bar-end'
const never = () => () => undefined
const findPlace = () => document.getElementById(TOP_BAR_END)

/** Puts something at the end of the top bar from anywhere below it. */
export function TopBarEnd({ children }: { children: ReactNode }) {
  const place = useSyncExternalStore(never, findPlace)
  return place ? createPortal(children, place) : null
}

import { useEffect, useState } from 'react'

const REST_MS = 250

/** What somebody typed, once they rest: nothing is asked at every key. */
export function useSettled(typed: string): string {
  const [settled, setSettled] = useState(typed)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(typed), REST_MS)
    return () => clearTimeout(timer)
  }, [typed])
  return settled
}

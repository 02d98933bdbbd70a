import { useEffect, useState } from 'react'

/** Now, in milliseconds; the component is shown again when the next of these moments has come. */
export function useMoment(moments: readonly number[]): number {
  const [now, setNow] = useState(() => Date.now())
  const next = Math.min(...moments.filter((m) => m > now))
  useEffect(() => {
    if (!Number.isFinite(next)) return
    const timer = setTimeout(() => setNow(Date.now()), Math.max(next - Date.now(), 0) + 50)
    return () => clearTimeout(timer)
  }, [next])
  return now
}

import { useCallback, useState } from 'react'

/** What is kept in this browser across a reload, a sign-out or a dropped network. */
export const kept = {
  read<T>(name: string): T | null {
    try {
      const text = localStorage.getItem(`spindle:${name}`)
      return text === null ? null : (JSON.parse(text) as T)
    } catch {
      return null
    }
  },
  write(name: string, value: unknown): void {
    try {
      localStorage.setItem(`spindle:${name}`, JSON.stringify(value))
    } catch {
      // a full or forbidden store costs the convenience, not the work
    }
  },
  drop(name: string): void {
    localStorage.removeItem(`spindle:${name}`)
  },
}

/** State that survives a reload until it is cleared. */
export function useKept<T>(name: string, initial: T): [T, (value: T) => void, () => void] {
  const [value, setValue] = useState<T>(() => kept.read<T>(name) ?? initial)
  const set = useCallback(
    (next: T) => {
      setValue(next)
      kept.write(name, next)
    },
    [name],
  )
  const clear = useCallback(() => {
    kept.drop(name)
    setValue(initial)
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the first initial value is the one to return to
  }, [name])
  return [value, set, clear]
}

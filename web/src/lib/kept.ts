import { useCallback, useState } from 'react'

const PREFIX = 'spindle:'
/** What is the screen's and nobody's own: it stays when somebody signs out. */
const OF_THE_SCREEN = ['lamp', 'decibans', 'tour', 'tour-open']
/** Work on its way to the server, by the person whose it is: `outbox:bram:K-0107`; what waits behind it stands in the queue. */
export const boxOf = (kind: 'outbox' | 'conflict' | 'queue', who: string, tag: string): string => `${kind}:${who}:${tag}`

const names = (): string[] =>
  Object.keys(localStorage)
    .filter((name) => name.startsWith(PREFIX))
    .map((name) => name.slice(PREFIX.length))

/** What is kept in this browser across a reload or a dropped network. */
export const kept = {
  read<T>(name: string): T | null {
    try {
      const text = localStorage.getItem(PREFIX + name)
      return text === null ? null : (JSON.parse(text) as T)
    } catch {
      return null
    }
  },
  write(name: string, value: unknown): void {
    try {
      localStorage.setItem(PREFIX + name, JSON.stringify(value))
    } catch {
      // a full or forbidden store costs the convenience, not the work
    }
  },
  drop(name: string): void {
    localStorage.removeItem(PREFIX + name)
  },
  /** What of a person's work has not reached the server: what each piece says. */
  unsent(who: string): string[] {
    const mine = names().filter((name) => name.startsWith(`outbox:${who}:`) || name.startsWith(`conflict:${who}:`))
    const waiting = names().filter((name) => name.startsWith(`queue:${who}:`)).flatMap((name) => kept.read<{ says: string }[]>(name) ?? [])
    return [...mine.map((name) => kept.read<{ says?: string; pending?: { says: string } }>(name)).map((box) => box?.says ?? box?.pending?.says ?? ''), ...waiting.map((w) => w.says)]
  },
  /** Somebody else signs in: drafts go, with the owners' names and numbers in them; work on its way waits for its own person. */
  forgetOthers(who: string): void {
    const was = kept.read<string>('who')
    if (was !== null && was !== who) names().filter((n) => !OF_THE_SCREEN.includes(n) && !/^(outbox|conflict|queue):/.test(n)).forEach(kept.drop)
    kept.write('who', who)
  },
  /** Somebody signs out: nothing of theirs stays in this browser. */
  forgetAll(): void {
    names().filter((n) => !OF_THE_SCREEN.includes(n)).forEach(kept.drop)
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

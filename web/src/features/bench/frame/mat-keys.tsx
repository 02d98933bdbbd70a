import { createContext, useContext, type ReactNode } from 'react'
import { useKeys, type Keys } from '@/lib/use-keys'

/** What on a mat may own Enter or the digits. */
export type Owner = 'answers' | 'move' | 'gate' | 'steps' | 'proof'

interface Owners {
  enter: Owner
  digits: Owner
}

const Own = createContext<Owners | null>(null)

/** The keymap of a mat: it names the one owner of Enter and the one owner of 0 to 9, so that no key means two things. */
export function MatKeys({ enter, digits = 'answers', children }: { enter: Owner; digits?: Owner; children: ReactNode }) {
  return <Own value={{ enter, digits }}>{children}</Own>
}

const isDigit = (key: string): boolean => /^\d$/.test(key)

/** Bind those of these keys that the mat gives to this owner; tells whether Enter is among what it may have. */
export function useMatKeys(owner: Owner, keys: Keys, of: { inDialog?: boolean } = {}): { hasEnter: boolean } {
  const own = useContext(Own)
  const hasEnter = own === null || own.enter === owner
  const hasDigits = own === null || own.digits === owner
  useKeys(Object.fromEntries(Object.entries(keys).filter(([key]) => (key === 'Enter' ? hasEnter : isDigit(key) ? hasDigits : true))), of)
  return { hasEnter }
}

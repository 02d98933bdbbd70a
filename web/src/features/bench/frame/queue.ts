import { useMemo, useRef, useState } from 'react'
import { kept } from '@/lib/kept'
import type { Ask, Pending } from './asks'

type Waiting = Pick<Pending, 'ask' | 'says'>

const isAgain = (a: Ask, b: Ask): boolean => a.do === 'answer' && b.do === 'answer' && a.question === b.question

/** Answers to other questions that were given faster than the server writes, in their order, kept in this browser. The same question once more is the same tap. */
export function useQueue(box: string) {
  const [shown, setShown] = useState<readonly Waiting[]>(() => kept.read<Waiting[]>(box) ?? [])
  const waiting = useRef<readonly Waiting[]>(shown)
  const acts = useMemo(() => {
    const put = (next: readonly Waiting[]) => {
      waiting.current = next
      setShown(next)
      if (next.length > 0) kept.write(box, next)
      else kept.drop(box)
    }
    return {
      add: (ask: Ask, says: string, before: Pending): void => {
        if (ask.do === 'answer' && before.ask.do === 'answer' && ![before, ...waiting.current].some((w) => isAgain(w.ask, ask))) put([...waiting.current, { ask, says }])
      },
      /** Takes the first one out. */
      next: (): Waiting | undefined => {
        const [first, ...rest] = waiting.current
        if (first) put(rest)
        return first
      },
      /** Takes all out, and returns what they said. */
      drop: (): string[] => {
        const left = waiting.current.map((w) => w.says)
        put([])
        return left
      },
    }
  }, [box])
  return useMemo(() => ({ ...acts, shown }), [acts, shown])
}

import { useEffect, useRef, useState } from 'react'
import type { Taken } from '@/api/types'

/** Where readings come from, one at a time. */
export interface Source {
  name: string
  take: (before: string[]) => Promise<Taken>
  close?: () => void
}
/** Readings that hold, and how sure the meter is, where that is known. */
export interface Held extends Pick<Taken, 'pct' | 'digits' | 'resolution' | 'leads_ohm'> {
  values: string[]
}

const MOST = 30

/** Reads on and on, shows what it reads, and holds when the last three lie together. */
export function useLive(onHeld: (held: Held) => void) {
  const [live, setLive] = useState<{ from: string; shown: string } | null>(null)
  const [problem, setProblem] = useState('')
  const turn = useRef(0)
  useEffect(
    () => () => {
      turn.current += 1 // whoever leaves is read no more
    },
    [],
  )
  const stop = () => {
    turn.current += 1
    setLive(null)
  }
  const start = async (opened: () => Promise<Source>) => {
    const mine = ++turn.current
    const isMine = () => turn.current === mine
    setProblem('')
    let source: Source | null = null
    try {
      source = await opened()
      const taken: string[] = []
      setLive({ from: source.name, shown: '' })
      while (isMine() && taken.length < MOST) {
        const now = await source.take(taken.slice(-2))
        if (!isMine()) return
        taken.push(now.value)
        setLive({ from: source.name, shown: now.shown })
        if (now.holds) {
          stop()
          return onHeld({ ...now, values: taken.slice(-3) })
        }
      }
      if (isMine()) setProblem('It does not stand still. Hold the tips still, or type what it shows.')
    } catch (error) {
      if (isMine()) setProblem(`${error instanceof Error ? error.message : String(error)} The field stays for typing.`)
    } finally {
      source?.close?.()
      if (isMine()) setLive(null)
    }
  }
  return { live, problem, start, stop }
}

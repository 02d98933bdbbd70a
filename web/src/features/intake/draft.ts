import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { useKept } from '@/lib/kept'
import { emptyNotes, type Notes } from './intake-fields'

/** A unit that is being taken in, as far as it is typed. */
export interface Draft {
  key: string
  sheet: string
  notes: Notes
  /** The closed job after which this unit came back. */
  returns: string
  sameFault: 'yes' | 'no' | ''
  /** What the eye saw of the drive, if it was found by looking. */
  looks: Record<string, string>
}

const freshDraft = (): Draft => ({ key: crypto.randomUUID(), sheet: '', notes: emptyNotes, returns: '', sameFault: '', looks: {} })

/** What is typed so far. The address may name the job after which a unit came back: it is taken over with the first change, and leaves the address. */
export function useDraft() {
  const [query, setQuery] = useSearchParams()
  const asked = query.get('returns') ?? ''
  const [takenOver, setTakenOver] = useState('')
  const [fresh, setFresh] = useState(freshDraft)
  const [kept, setKept, clear] = useKept<Draft | null>('take-in', null)
  const draft = { ...fresh, ...kept, ...(asked !== '' && asked !== takenOver && { returns: asked }) }
  const takeOver = () => {
    if (asked === '') return
    setTakenOver(asked)
    setQuery({}, { replace: true })
  }
  const setDraft = (next: Draft) => {
    setKept(next)
    takeOver()
  }
  const reset = () => {
    clear()
    setFresh(freshDraft())
    takeOver()
  }
  return { draft, setDraft, reset }
}

import { useState } from 'react'
import { useKept } from '@/lib/kept'

interface Kept<T> {
  basedOn: number
  document: T
}

/** Something that is edited as a whole: kept in this browser until it is saved as the next version, step by step undone, and known to be out of date. */
export function useDraft<T>(name: string, version: number, start: T) {
  const [fresh] = useState<Kept<T>>(() => ({ basedOn: version, document: start }))
  const [draft, setDraft, clear] = useKept<Kept<T>>(name, fresh)
  const [past, setPast] = useState<Kept<T>[]>([])
  const undo = () => {
    setPast(past.slice(0, -1))
    setDraft(past.at(-1) ?? draft)
  }
  return {
    document: draft.document,
    basedOn: draft.basedOn,
    isStale: draft.basedOn !== version,
    isChanged: JSON.stringify(draft.document) !== JSON.stringify(start),
    change: (document: T) => {
      setPast([...past.slice(-49), draft])
      setDraft({ ...draft, document })
    },
    /** Puts it on top of the newest version. */
    rebase: () => setDraft({ basedOn: version, document: draft.document }),
    undo: past.length > 0 ? undo : undefined,
    clear,
  }
}

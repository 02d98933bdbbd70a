import { lazy, Suspense, useRef, useState } from 'react'

/** Words that are asked about where they stand; the glossary has each. */
export const WORDS = ['level', 'not on the list', 'pairing', 'pass', 'trimmer'] as const
export type Word = (typeof WORDS)[number]

const Meaning = lazy(async () => ({ default: (await import('./meaning')).Meaning }))

/** A word that can be asked what it means, where it stands. */
export function Term({ word, says }: { word: Word; says: string }) {
  const [isOpen, setOpen] = useState(false)
  const here = useRef<HTMLButtonElement>(null)
  return (
    <>
      <button
        ref={here}
        type="button"
        aria-haspopup="dialog"
        aria-expanded={isOpen}
        aria-label={`${says}: what is that?`}
        onClick={() => setOpen(true)}
        className="-my-2.5 inline-flex min-h-11 min-w-11 items-center rounded text-left text-inherit underline decoration-dotted decoration-from-font underline-offset-4"
      >
        {says}
      </button>
      {isOpen && (
        <Suspense>
          <Meaning word={word} at={here} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  )
}

import type { Found } from '@/api/types'

interface Props {
  things: readonly Found[]
  /** Which one Enter opens. */
  at: number
  onPick: (thing: Found) => void
}

export const FOUND_ID = 'found'
export const optionId = (n: number): string => `${FOUND_ID}-${n}`

/** What a search has found: the arrows move, Enter or a tap opens. */
export function FoundList({ things, at, onPick }: Props) {
  return (
    <ul id={FOUND_ID} role="listbox" aria-label="Found" className="absolute top-full right-0 z-40 mt-1 max-h-[70vh] max-md:top-[calc(100%+3rem)] max-md:right-2.5 w-[min(24rem,calc(100vw-1.5rem))] overflow-y-auto rounded-lg border border-ink bg-paper p-1 text-ink">
      {things.map((thing, n) => (
        <li key={`${thing.kind} ${thing.key}`} id={optionId(n)} role="option" aria-selected={n === at} className={`cursor-pointer rounded p-2 ${n === at ? 'bg-mat outline-2 outline-ink' : 'hover:bg-mat'}`} onClick={() => onPick(thing)}>
          <span className="figures font-semibold">{thing.key}</span> {thing.title}
          <span className="block text-tiny text-quiet">
            {thing.kind} · {thing.line}
          </span>
        </li>
      ))}
      {things.length === 0 && <li className="p-2 text-quiet">Nothing holds all of these words. A tag, a name, a number, a console or a part finds its thing.</li>}
    </ul>
  )
}

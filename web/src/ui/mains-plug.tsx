import { TopBarEnd } from './top-bar-end'

interface Props {
  /** What it is, beginning with "Mains" or in words of its own. */
  said: string
  isOut: boolean
  /** Why it cannot be turned now; undefined where it can. */
  title?: string | undefined
  label: string
  onToggle: (() => void) | undefined
}

/** The mains, always in sight at the end of the top bar: a plug, struck through while it is out, red while it is not. */
export function MainsPlug({ said, isOut, title, label, onToggle }: Props) {
  return (
    <TopBarEnd>
      <button
        type="button"
        onClick={onToggle}
        disabled={!onToggle}
        title={title}
        aria-label={label}
        className={`inline-flex min-h-11 items-center gap-2 rounded-lg px-2.5 font-bold whitespace-nowrap md:px-3.5 ${!isOut ? 'bg-[#a5221c] text-[#fbfaf5]' : 'bg-[#f3e6bf] text-[#1c2b2a]'}`}
      >
        <svg viewBox="0 0 18 18" className="size-4.5" fill="none" stroke="currentColor" strokeWidth="1.9" aria-hidden="true">
          <path d="M6 2v4M12 2v4M4 6h10v3a5 5 0 0 1-10 0zM9 14v3" />
          {isOut && <path d="M2 16L16 2" />}
        </svg>
        <span>
          {said.startsWith('Mains ') && <span className="max-md:sr-only">Mains </span>}
          <span className="max-md:first-letter:uppercase">{said.replace('Mains ', '')}</span>
        </span>
      </button>
    </TopBarEnd>
  )
}

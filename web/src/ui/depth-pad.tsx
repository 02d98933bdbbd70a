interface Props {
  names: readonly string[]
  now: number
  isDisabled: boolean
  onSet: (depth: number) => void
}

/** How far a unit is open, and a press to another depth. */
export function DepthPad({ names, now, isDisabled, onSet }: Props) {
  return (
    <>
      <legend className="mb-1 text-tiny text-quiet">How far is it open?</legend>
      <div className="grid grid-cols-2 gap-1">
        {names.map((name, n) => (
          <button
            key={name}
            type="button"
            aria-pressed={now === n}
            disabled={isDisabled}
            onClick={() => onSet(n)}
            className="min-h-11 rounded-md border border-ink/45 px-1.5 text-tiny first-letter:uppercase aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper"
          >
            {name}
          </button>
        ))}
      </div>
    </>
  )
}

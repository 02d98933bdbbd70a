import { ToggleGroup } from 'radix-ui'
import type { ReactNode } from 'react'

interface Props {
  label: string
  choices: readonly { id: string; label: ReactNode }[]
  /** "" where none is chosen. */
  value: string
  onChange: (id: string) => void
}

/** One of a few, or none: a press more takes it back. One stop for Tab, arrows inside. */
export function ToggleRow({ label, choices, value, onChange }: Props) {
  return (
    <ToggleGroup.Root type="single" aria-label={label} value={value} onValueChange={onChange} className="flex flex-wrap gap-1.5">
      {choices.map((c) => (
        <ToggleGroup.Item
          key={c.id}
          value={c.id}
          className="min-h-11 rounded-lg border border-ink/45 bg-paper px-3 leading-tight data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-paper"
        >
          {c.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  )
}

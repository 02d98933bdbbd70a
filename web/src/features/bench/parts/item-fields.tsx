import { FUNCTION_WORDS } from '@/lib/words'

export const HEALTHS = [
  { id: 'proven', label: 'Proven in a working unit' },
  { id: 'new', label: 'New' },
  { id: 'unknown', label: 'Not known' },
] as const
export type Health = (typeof HEALTHS)[number]['id']

export type FunctionName = keyof typeof FUNCTION_WORDS
export const FUNCTIONS = (Object.keys(FUNCTION_WORDS) as FunctionName[]).map((id) => ({ id, label: FUNCTION_WORDS[id] }))

/** What a donor was seen to do: a swap clears a part only as far as the donor is known good in that function. */
export function Functions({ value, onChange }: { value: FunctionName[]; onChange: (works: FunctionName[]) => void }) {
  const toggle = (id: FunctionName) => onChange(value.includes(id) ? value.filter((f) => f !== id) : [...value, id])
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Seen to work, in the donor:</legend>
      <div className="flex flex-wrap gap-1.5">
        {FUNCTIONS.map((f) => (
          <label
            key={f.id}
            className="relative inline-flex min-h-11 cursor-pointer items-center gap-2 rounded-lg border border-ink/45 bg-paper px-3 has-checked:border-ink has-checked:bg-ink has-checked:text-paper has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-verdigris"
          >
            <input type="checkbox" className="sr-only" checked={value.includes(f.id)} onChange={() => toggle(f.id)} />
            {value.includes(f.id) ? '✓ ' : ''}
            {f.label}
          </label>
        ))}
      </div>
    </fieldset>
  )
}

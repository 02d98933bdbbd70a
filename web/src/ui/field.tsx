import { useId, type InputHTMLAttributes, type ReactNode, type TextareaHTMLAttributes } from 'react'
import { KeyCap } from './button'

const box = 'w-full rounded-lg border border-ink/55 bg-paper px-3 py-2 min-h-11 aria-invalid:border-danger aria-invalid:border-2'

interface Own {
  label: string
  hint?: ReactNode
  error?: string | undefined
}

function Frame({ id, label, hint, error, children }: Own & { id: string; children: ReactNode }) {
  return (
    <div>
      <label htmlFor={id} className="mb-1 block font-semibold">
        {label}
      </label>
      {children}
      {hint && (
        <p id={`${id}-hint`} className="mt-1 text-tiny text-quiet">
          {hint}
        </p>
      )}
      {error && (
        <p id={`${id}-error`} role="alert" className="mt-1 text-danger">
          {error}
        </p>
      )}
    </div>
  )
}

const described = (id: string, own: Own) => ({
  id,
  'aria-invalid': own.error ? true : undefined,
  'aria-describedby': [own.hint ? `${id}-hint` : '', own.error ? `${id}-error` : ''].filter(Boolean).join(' ') || undefined,
})

export function TextField({ label, hint, error, ...rest }: Own & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId()
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <input className={box} {...described(id, { label, hint, error })} {...rest} />
    </Frame>
  )
}

export function TextArea({ label, hint, error, ...rest }: Own & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId()
  return (
    <Frame id={id} label={label} hint={hint} error={error}>
      <textarea rows={3} className={box} {...described(id, { label, hint, error })} {...rest} />
    </Frame>
  )
}

interface ChoiceProps {
  label: string
  /** `hotkey` is shown; who owns the keys binds it. */
  choices: readonly { id: string; label: string; hotkey?: string }[]
  value: string
  onChange: (id: string) => void
  error?: string | undefined
  inline?: boolean
  /** Long labels stand under each other, in two columns where there is room. */
  isGrid?: boolean
  /** A dialog begins here, and not at its first field. */
  isStart?: boolean
}

/** One of a few, all in sight. Nothing is preselected unless `value` says so. */
export function Choice({ label, choices, value, onChange, error, inline = false, isGrid = false, isStart = false }: ChoiceProps) {
  const name = useId()
  return (
    <fieldset className={inline ? 'flex flex-wrap items-center gap-x-4 gap-y-1.5' : ''}>
      <legend className={inline ? 'float-left mr-3 min-w-52 py-2' : 'mb-1 font-semibold'}>{label}</legend>
      <div className={isGrid ? 'grid gap-1.5 md:grid-cols-2' : 'flex flex-wrap gap-1.5'}>
        {choices.map((c, n) => (
          <label
            key={c.id}
            className="relative inline-flex min-h-11 cursor-pointer items-center gap-2 rounded-lg border border-ink/45 bg-paper px-3 has-checked:border-ink has-checked:bg-ink has-checked:text-paper has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-verdigris"
          >
            <input type="radio" className="sr-only" name={name} value={c.id} checked={value === c.id} onChange={() => onChange(c.id)} aria-keyshortcuts={c.hotkey} data-start={isStart && n === 0 ? '' : undefined} />
            {c.hotkey && <KeyCap>{c.hotkey}</KeyCap>}
            {c.label}
          </label>
        ))}
      </div>
      {error && (
        <p role="alert" className="mt-1 w-full text-danger">
          {error}
        </p>
      )}
    </fieldset>
  )
}

/** One of many, by its name. */
export function Select({ label, choices, value, onChange, empty = 'Choose…' }: Omit<ChoiceProps, 'error' | 'inline' | 'isGrid' | 'isStart'> & { empty?: string }) {
  return (
    <label className="block">
      <span className="mb-1 block font-semibold">{label}</span>
      <select className="min-h-11 w-full rounded-lg border border-ink/55 bg-paper px-3" value={value} onChange={(e) => onChange(e.target.value)}>
        <option value="">{empty}</option>
        {choices.map((c) => (
          <option key={c.id} value={c.id}>
            {c.label}
          </option>
        ))}
      </select>
    </label>
  )
}

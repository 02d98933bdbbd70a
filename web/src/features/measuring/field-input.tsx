import type { ToolField } from '@/api/types'
import { Button } from '@/ui/button'
import { Choice, Select, TextField } from '@/ui/field'
import { kindOf, unitOf, withUnit, type Inputs, type Value } from './inputs'
import { MeterRead } from './meter-read'
import type { Held } from './use-live'

interface Props {
  field: ToolField
  value: Value
  /** The whole form: a unit may stand beside another field. */
  all: Inputs
  error?: string | undefined
  onChange: (value: Value) => void
  /** A meter has read it: how sure it is goes along. */
  onSure?: ((held: Held) => void) | undefined
}

const MANY = 3

/** One thing that a calculator asks. */
export function FieldInput(props: Props) {
  const { field, value, onChange } = props
  if (field.kind === 'choice') return <OneOf {...props} />
  if (field.kind === 'flag') return <YesNo {...props} />
  if (field.kind === 'quantities') return <Several {...props} />
  return <Typed {...props} text={typeof value === 'string' || typeof value === 'number' ? String(value) : ''} onText={onChange} label={labelOf(field)} />
}

const labelOf = (field: ToolField): string => (field.optional && field.kind !== 'flag' ? `${field.name} (if known)` : field.name)

function Typed({ field, all, error, text, onText, label }: Props & { text: string; onText: (text: string) => void; label: string }) {
  const unit = field.kind === 'quantity' || field.kind === 'quantities' ? unitOf(field, all) : ''
  return (
    <TextField
      label={label}
      hint={field.hint || undefined}
      error={error}
      value={text}
      placeholder={unit ? `in ${unit}` : ''}
      inputMode={field.kind === 'text' ? 'text' : 'decimal'}
      autoComplete="off"
      maxLength={120}
      onChange={(e) => onText(e.target.value)}
      onBlur={() => onText(withUnit(text, unit))}
    />
  )
}

function OneOf({ field, value, error, onChange }: Props) {
  const choices = field.choices.map((c) => ({ id: c.id, label: c.name }))
  if (choices.length > MANY) return <Select label={labelOf(field)} choices={choices} value={String(value ?? '')} onChange={onChange} />
  return <Choice label={labelOf(field)} choices={choices} value={String(value ?? '')} error={error} onChange={onChange} />
}

/** What yes and no are called, where they are called otherwise. */
export const yesAndNo = ({ choices }: ToolField): { id: string; label: string }[] =>
  choices.length > 0 ? choices.map((c) => ({ id: c.id, label: c.name })) : [{ id: 'yes', label: 'Yes' }, { id: 'no', label: 'No' }]

function YesNo({ field, value, onChange }: Props) {
  return (
    <div className="flex flex-wrap items-end gap-2">
      <Choice label={field.name} choices={yesAndNo(field)} value={value === true ? 'yes' : value === false ? 'no' : ''} onChange={(id) => onChange(id === 'yes')} />
      {typeof value === 'boolean' && (
        <Button kind="quiet" onClick={() => onChange(undefined)}>
          Not said
        </Button>
      )}
      {field.hint && <p className="w-full text-tiny text-quiet">{field.hint}</p>}
    </div>
  )
}

/** Several readings of one thing: there is always one box more than was filled. */
function Several({ field, value, all, error, onChange, onSure }: Props) {
  const given = Array.isArray(value) ? value.map(String) : []
  const boxes = [...given, ...Array.from({ length: Math.max(1, MANY - given.length) }, () => '')]
  const unit = unitOf(field, all)
  const put = (n: number, text: string) => {
    const next = [...boxes.slice(0, n), text, ...boxes.slice(n + 1)]
    while (next.length > 0 && next.at(-1) === '') next.pop()
    onChange(next)
  }
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">
        {labelOf(field)}
        {unit && <span className="font-normal text-quiet">, {unit}</span>}
      </legend>
      <div className="grid grid-cols-3 gap-1.5 sm:grid-cols-4">
        {boxes.map((text, n) => (
          <input
            key={n}
            aria-label={`${field.name}, ${n + 1}`}
            aria-invalid={error ? true : undefined}
            className="figures min-h-11 w-full rounded-lg border border-ink/55 bg-paper px-2.5 aria-invalid:border-2 aria-invalid:border-danger"
            value={text}
            placeholder={String(n + 1)}
            inputMode="decimal"
            autoComplete="off"
            maxLength={24}
            onChange={(e) => put(n, e.target.value)}
            onBlur={() => put(n, withUnit(text, unit))}
          />
        ))}
      </div>
      <MeterRead quantity={kindOf(field, all)} onHeld={(held) => (onSure ? onSure(held) : onChange(held.values))} />
      {field.hint && <p className="mt-1 text-tiny text-quiet">{field.hint}</p>}
      {error && (
        <p role="alert" className="mt-1 text-danger">
          {error}
        </p>
      )}
    </fieldset>
  )
}

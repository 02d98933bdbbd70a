import { useState } from 'react'
import type { ToolField } from '@/api/types'
import { Button } from '@/ui/button'
import { FieldInput, yesAndNo } from './field-input'
import type { Inputs, Value } from './inputs'

interface Props {
  field: ToolField
  value: Value
  all: Inputs
  wrong: Record<string, string>
  /** What the next row already is: a turn to make, a pair to read. */
  next: Inputs | undefined
  /** The answer is still on its way: what the next row is may change with it. */
  isWorking: boolean
  onChange: (rows: Inputs[]) => void
}

/** As many rows as there are: the next one first, then those that stand, the newest at the top, each to be changed or taken out. */
export function RowsField({ field, value, all, wrong, next, isWorking, onChange }: Props) {
  const rows = Array.isArray(value) ? (value as Inputs[]) : []
  const errors = (n: number, column: ToolField) => Object.entries(wrong).find(([place]) => place.startsWith(`/${field.id}/${n}/${column.id}`))?.[1]
  return (
    <fieldset className="space-y-2">
      <legend className="mb-1 text-[1.1rem] font-bold">{field.name}</legend>
      {field.hint && <p className="text-quiet">{field.hint}</p>}
      <NextRow key={rows.length} field={field} all={all} given={next ?? {}} isWorking={isWorking} onAdd={(row) => onChange([...rows, row])} />
      <ol className="flex flex-col-reverse gap-2">
        {rows.map((row, n) => (
          <li key={n} className="rounded-lg border border-line bg-mat/40 p-2.5">
            <div className="mb-1 flex items-center justify-between gap-2">
              <b className="figures">{n + 1}</b>
              <Button kind="quiet" aria-label={`Take row ${n + 1} out`} onClick={() => onChange(rows.filter((_, k) => k !== n))}>
                Take out
              </Button>
            </div>
            <div className="grid gap-2.5 sm:grid-cols-2">
              {field.columns.map((column) => (
                <FieldInput key={column.id} field={column} value={row[column.id]} all={all} error={errors(n, column)} onChange={(v) => onChange(rows.map((r, k) => (k === n ? { ...r, [column.id]: v } : r)))} />
              ))}
            </div>
          </li>
        ))}
      </ol>
    </fieldset>
  )
}

/** The next row: where only a yes or no is missing, two large keys; else its own fields. */
function NextRow({ field, all, given, isWorking, onAdd }: { field: ToolField; all: Inputs; given: Inputs; isWorking: boolean; onAdd: (row: Inputs) => void }) {
  const [typed, setTyped] = useState<Inputs>({}) // apart from what is given: an answer that comes meanwhile takes nothing away
  const row = { ...given, ...typed }
  const asked = field.columns.filter((c) => given[c.id] === undefined)
  const [only] = asked
  if (only?.kind === 'flag' && asked.length === 1)
    return (
      <div className="flex flex-wrap gap-2" role="group" aria-label={only.name}>
        {yesAndNo(only).map(({ id, label }) => (
          <Button key={id} kind="answer" disabled={isWorking} onClick={() => onAdd({ ...given, [only.id]: id === 'yes' })}>
            {label}
          </Button>
        ))}
      </div>
    )
  const isTouched = Object.values(typed).some((v) => v !== undefined && v !== '')
  return (
    <div className="rounded-lg border-[1.5px] border-dashed border-ink/45 p-2.5">
      <div className="grid gap-2.5 sm:grid-cols-2">
        {field.columns.map((column) => (
          <FieldInput key={column.id} field={column} value={row[column.id]} all={all} onChange={(v) => setTyped({ ...typed, [column.id]: v })} />
        ))}
      </div>
      <Button className="mt-2.5" disabled={!isTouched || isWorking} onClick={() => onAdd(row)}>
        Add it
      </Button>
    </div>
  )
}

import type { ReactNode } from 'react'
import type { Column, SheetForm, Table } from '@/api/types'
import { Button } from '@/ui/button'
import { FileButton } from '@/ui/file-button'
import { Notice, Panel } from '@/ui/panel'
import type { Cell, Row } from './document'
import { useImportConsoleTable, useImportTable, type Named } from './drive-queries'
import { PictureCell } from './picture-cell'

const BOX = 'min-h-11 w-full min-w-24 rounded-lg border border-ink/55 bg-paper px-2 aria-invalid:border-2 aria-invalid:border-danger'

interface Props {
  table: Table
  rows: Row[]
  form: SheetForm
  /** What replaces the table by a CSV file; none where nothing is saved yet. */
  fromCsv?: ReactNode
  /** JSON pointer of what the server refused. */
  place: string
  onChange: (rows: Row[]) => void
}

/** One table, cell by cell; or a whole table from a CSV file. */
export function TableEditor({ table, rows, form, fromCsv, place, onChange }: Props) {
  const set = (n: number, id: string, value: Cell) => onChange(rows.map((r, k) => (k === n ? { ...r, [id]: value } : r)))
  return (
    <Panel title={table.title} aside={table.about}>
      {rows.length > 0 && (
        <div className="relative overflow-x-auto">
          <table className="w-full text-left">
            <thead className="text-tiny text-quiet">
              <tr>
                {table.columns.map((c) => (
                  <th key={c.id} className="pr-2 pb-1 font-normal">
                    {c.name}
                    {c.unit && `, ${c.unit}`}
                  </th>
                ))}
                <th className="sr-only">Take out</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((r, n) => (
                <tr key={n} className={place === `/tables/${table.id}/${n}` ? 'outline-2 outline-danger' : ''}>
                  {table.columns.map((c) => (
                    <td key={c.id} className="pr-2 pb-1.5">
                      <CellField
                        column={c}
                        label={`${table.title}, row ${n + 1}, ${c.name}`}
                        value={r[c.id] ?? null}
                        form={form}
                        isRefused={place === `/tables/${table.id}/${n}/${c.id}`}
                        onChange={(value) => set(n, c.id, value)}
                      />
                    </td>
                  ))}
                  <td>
                    <Button kind="quiet" className="px-1! whitespace-nowrap" aria-label={`Take out row ${n + 1} of ${table.title}`} onClick={() => onChange(rows.filter((_, k) => k !== n))}>
                      Take out
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <div className="mt-2 flex flex-wrap items-start gap-2">
        <Button onClick={() => onChange([...rows, blank(table)])}>Add a row</Button>
        {fromCsv}
      </div>
    </Panel>
  )
}

/** A new row: choices at their first word, numbers and texts to be filled in. */
const blank = (table: Table): Row =>
  Object.fromEntries(table.columns.filter((c) => !c.optional).map((c) => [c.id, c.kind === 'choice' ? c.choices[0]! : c.kind === 'flag' ? false : c.kind === 'text' ? '' : c.low]))

interface CellProps {
  column: Column
  label: string
  value: Cell
  form: SheetForm
  isRefused: boolean
  onChange: (value: Cell) => void
}

function CellField({ column, label, value, form, isRefused, onChange }: CellProps) {
  const common = { 'aria-label': label, 'aria-invalid': isRefused || undefined }
  if (column.kind === 'flag') 
    return (
      <label className="inline-flex size-11 items-center justify-center">
        <input type="checkbox" className="size-6" {...common} checked={value === true} onChange={(e) => onChange(e.target.checked)} />
      </label>
    )
  if (column.kind === 'picture') return <PictureCell label={label} value={value === null || value === undefined ? '' : String(value)} isRefused={isRefused} onChange={onChange} />
  if (column.kind === 'choice')
    return (
      <select className={BOX} {...common} value={String(value)} onChange={(e) => onChange(e.target.value)}>
        {column.choices.map((c) => (
          <option key={c} value={c}>
            {choiceName(column, c, form)}
          </option>
        ))}
      </select>
    )
  if (column.kind === 'text') return <input className={BOX} {...common} maxLength={300} value={String(value ?? '')} onChange={(e) => onChange(e.target.value === '' && column.optional ? null : e.target.value)} />
  return (
    <input
      type="number"
      step={column.kind === 'count' ? 1 : 'any'}
      min={column.low}
      max={column.high}
      className={`${BOX} figures`}
      {...common}
      value={value === null ? '' : String(value)}
      onChange={(e) => onChange(e.target.value === '' ? (column.optional ? null : '') : Number(e.target.value))}
    />
  )
}

const choiceName = (column: Column, choice: string, form: SheetForm): string =>
  column.id === 'level' ? (form.levels.find((l) => l.id === choice)?.name ?? choice) : column.id === 'origin' ? (form.origins[choice] ?? choice) : choice

interface Load {
  mutate: (sent: { table: string; file: File }) => void
  isPending: boolean
  error: Error | null
  data: { version: number } | undefined
}

/** Replaces one table of a drive's sheet by a CSV file. */
export function DriveCsv({ table, variant }: { table: Table; variant: string }) {
  return <FromCsv table={table} load={useImportTable(variant)} />
}

/** Replaces one table of a console's sheet by a CSV file. */
export function ConsoleCsv({ table, named }: { table: Table; named: Named }) {
  return <FromCsv table={table} load={useImportConsoleTable(named)} />
}

function FromCsv({ table, load }: { table: Table; load: Load }) {
  return (
    <>
      <FileButton label={`${table.title} from a CSV file`} accept=".csv,text/csv" disabled={load.isPending} onFile={(file) => load.mutate({ table: table.id, file })}>
        {load.isPending ? 'Reading…' : 'Replace by a CSV file, saved at once'}
      </FileButton>
      {load.error && (
        <Notice tone="danger" title="Not loaded; nothing was changed" role="alert">
          {load.error.message}
        </Notice>
      )}
      {load.data && !load.error && <Notice title={`Saved as version ${load.data.version}`} role="status" />}
    </>
  )
}

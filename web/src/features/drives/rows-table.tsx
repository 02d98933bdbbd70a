import type { Column, SheetForm, Table } from '@/api/types'
import { Picture } from '@/ui/picture'
import type { Cell, Row, SheetSource } from './document'
import { SourceMark } from './source-mark'

const PROVENANCE = ['origin', 'confidence', 'said']

/** A cell in words: numbers with their unit, a level by its name, nothing as a dash. */
export function cellText(column: Column, value: Cell | undefined, form: SheetForm): string {
  if (value === null || value === undefined || value === '') return '–'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (column.id === 'level') return form.levels.find((l) => l.id === value)?.name ?? String(value)
  return column.unit ? `${value} ${column.unit}` : String(value)
}

/** The rows of one table with their sources; columns that are empty throughout are left out. */
export function RowsTable({ table, rows, form }: { table: Table; rows: Row[]; form: SheetForm }) {
  const columns = table.columns.filter((c) => !PROVENANCE.includes(c.id) && rows.some((r) => r[c.id] !== undefined && r[c.id] !== null && r[c.id] !== false))
  return (
    <div className="relative overflow-x-auto">
      <table className="w-full text-left">
        <thead className="text-tiny text-quiet">
          <tr>
            {columns.map((c) => (
              <th key={c.id} className="py-1 pr-3 font-normal">
                {c.name}
              </th>
            ))}
            <th className="font-normal">From</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r, n) => (
            <tr key={n} className="border-t border-line align-top">
              {columns.map((c) => (
                <td key={c.id} className={`py-1.5 pr-3 ${c.kind === 'number' || c.kind === 'count' || c.id === 'code' ? 'figures whitespace-nowrap' : ''}`}>
                  {c.kind === 'picture' && r[c.id] ? <Picture hash={String(r[c.id])} says={`Picture of ${String(r[table.columns[0]!.id])}`} className="w-24" /> : cellText(c, r[c.id], form)}
                </td>
              ))}
              <td className="py-1.5">
                <SourceMark source={r as unknown as SheetSource} form={form} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

import { Link } from 'react-router'
import type { ConsoleSheet, Drive, SheetForm } from '@/api/types'
import { Asked } from '@/ui/asked'
import { FileButton } from '@/ui/file-button'
import { Notice, Panel } from '@/ui/panel'
import type { Row } from './document'
import { useConsole, useImportConsole, type Named } from './drive-queries'
import { RowsTable } from './rows-table'

const LINK = 'inline-flex min-h-11 items-center underline underline-offset-2'

const queryOf = ({ maker, console, revision }: Named): string => new URLSearchParams({ maker, console, revision }).toString()

/** What is outside the drive, from the sheet of its console: said once for every drive that the console may carry. */
export function Outside({ drive, form, may }: { drive: Drive; form: SheetForm; may: boolean }) {
  const console = useConsole(drive)
  return (
    <Asked of={console} what="the console’s sheet">
      {(found) => (
        <Panel title={`Outside: ${drive.maker} ${drive.console}, revision ${drive.revision}`} aside={found.version > 0 ? `the console’s sheet, version ${found.version}, the same for every drive in it` : ''}>
          <Tables sheet={found} form={form} />
          {may && <Actions variant={drive.variant} named={found} isThere={found.version > 0} />}
        </Panel>
      )}
    </Asked>
  )
}

function Tables({ sheet, form }: { sheet: ConsoleSheet; form: SheetForm }) {
  const tables = (sheet.document as { tables: Record<string, Row[]> }).tables
  const filled = form.console_tables.filter((t) => (tables[t.id] ?? []).length > 0)
  if (filled.length === 0) return <p className="text-quiet">Nobody has written yet how this console is opened.</p>
  return (
    <div className="space-y-3">
      {filled.map((t) => (
        <section key={t.id} aria-label={t.title}>
          <div className="flex items-baseline gap-3">
            <h3 className="font-bold">{t.title}</h3>
            <a className={`${LINK} min-w-11`} href={`/api/console/tables/${t.id}?${queryOf(sheet)}`} download>
              CSV
            </a>
          </div>
          <RowsTable table={t} rows={tables[t.id] ?? []} form={form} />
        </section>
      ))}
    </div>
  )
}

function Actions({ variant, named, isThere }: { variant: string; named: Named; isThere: boolean }) {
  const load = useImportConsole()
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
      <Link className={LINK} to={`/drives/${variant}/console`}>
        {isThere ? 'Edit the console’s sheet' : 'Write the console’s sheet'}
      </Link>
      {isThere && (
        <a className={LINK} href={`/api/console/file?${queryOf(named)}`} download>
          Save it as a file
        </a>
      )}
      <FileButton label="A console’s sheet from a file" accept=".json,application/json" disabled={load.isPending} onFile={(file) => load.mutate({ file })}>
        {load.isPending ? 'Reading…' : 'From a file'}
      </FileButton>
      {load.error && (
        <Notice tone="danger" title="Not loaded; nothing was changed" role="alert">
          {load.error.message}
        </Notice>
      )}
      {load.data && !load.error && <Notice title={`${load.data.console}, revision ${load.data.revision}: saved as version ${load.data.version}`} role="status" />}
    </div>
  )
}

import { useNavigate, useParams } from 'react-router'
import { useSheetForm } from '@/api/sheets'
import type { ConsoleSheet, SheetForm } from '@/api/types'
import { Asked } from '@/ui/asked'
import { Page } from '@/ui/sub-nav'
import type { Row } from './document'
import { useConsole, useSaveConsole, useSheet, type Named } from './drive-queries'
import { refusedPlace, SavePanel, StaleNotice } from './save-panel'
import { ConsoleCsv, TableEditor } from './table-editor'
import { useDraft } from './use-draft'

interface ConsoleDocument extends Named {
  format: string
  version: number
  tables: Record<string, Row[]>
}

/** Changing what is outside the drive, for the console that a drive sits in. */
export function ConsoleEditor() {
  const { variant = '' } = useParams()
  const sheet = useSheet(variant)
  return (
    <Asked of={sheet} what={`the sheet of ${variant}`}>
      {(found) => <Found variant={variant} named={found.drive} />}
    </Asked>
  )
}

function Found({ variant, named }: { variant: string; named: Named }) {
  const console = useConsole(named)
  const form = useSheetForm()
  return (
    <Asked of={console} what="the console’s sheet">
      {(found) => (
        <Asked of={form} what="the tables">
          {(words) => <Editor key={variant} variant={variant} sheet={found} form={words} />}
        </Asked>
      )}
    </Asked>
  )
}

function Editor({ variant, sheet, form }: { variant: string; sheet: ConsoleSheet; form: SheetForm }) {
  const { version } = sheet
  const name = `${sheet.maker} ${sheet.console} ${sheet.revision}`
  const draft = useDraft(`console:${name}`, version, sheet.document as unknown as ConsoleDocument)
  const save = useSaveConsole()
  const navigate = useNavigate()
  const { document } = draft
  const set = (table: string, rows: Row[]) => {
    draft.change({ ...document, tables: { ...document.tables, [table]: rows } })
    if (save.error) save.reset()
  }
  const leave = () => {
    draft.clear()
    void navigate(`/drives/${variant}`)
  }
  const submit = (why: string) => save.mutate({ based_on: draft.basedOn, document: document as unknown as Record<string, unknown>, why }, { onSuccess: leave })
  return (
    <Page name={`Edit ${name}`} title={`Outside: ${name}`} lead="How this console is opened down to its drive, the same for every drive that it may carry. Jobs follow its newest version.">
      <StaleNotice draft={draft} version={version} />
      {form.console_tables.map((t) => (
        <TableEditor key={t.id} table={t} rows={document.tables[t.id] ?? []} form={form} fromCsv={version > 0 && <ConsoleCsv table={t} named={sheet} />} place={refusedPlace(save.error)} onChange={(rows) => set(t.id, rows)} />
      ))}
      <SavePanel error={save.error} version={version} isSaving={save.isPending} draft={draft} onSave={submit} onLeave={leave} />
    </Page>
  )
}

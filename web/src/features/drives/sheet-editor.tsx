import { useNavigate, useParams } from 'react-router'
import { useSheetForm } from '@/api/sheets'
import type { SheetForm } from '@/api/types'
import { Asked } from '@/ui/asked'
import { Page } from '@/ui/sub-nav'
import type { SheetDocument } from './document'
import { useSaveSheet, useSheet } from './drive-queries'
import { FactsEditor } from './facts-editor'
import { LooksEditor } from './looks-editor'
import { refusedPlace, SavePanel, StaleNotice } from './save-panel'
import { DriveCsv, TableEditor } from './table-editor'
import { useDraft } from './use-draft'

/** Changing a sheet. What is typed stays in this browser until it is saved as the next version. */
export function SheetEditor() {
  const { variant = '' } = useParams()
  const sheet = useSheet(variant)
  const form = useSheetForm()
  return (
    <Asked of={sheet} what={`the sheet of ${variant}`}>
      {(found) => (
        <Asked of={form} what="the tables">
          {(words) => <Editor key={variant} variant={variant} version={found.version} start={found.document as unknown as SheetDocument} form={words} />}
        </Asked>
      )}
    </Asked>
  )
}

/** `version` is the newest one on the server. */
function Editor({ variant, version, start, form }: { variant: string; version: number; start: SheetDocument; form: SheetForm }) {
  const draft = useDraft<SheetDocument>(`sheet:${variant}`, version, start)
  const save = useSaveSheet(variant)
  const navigate = useNavigate()
  const { document } = draft
  const change = (next: SheetDocument) => {
    draft.change(next)
    if (save.error) save.reset()
  }
  const leave = () => {
    draft.clear()
    void navigate(`/drives/${variant}`)
  }
  const submit = (why: string) => save.mutate({ based_on: draft.basedOn, document: document as unknown as Record<string, unknown>, why }, { onSuccess: leave })
  const place = refusedPlace(save.error)
  return (
    <Page
      name={`Edit ${variant}`}
      title={
        <>
          Edit <span className="figures">{variant}</span>
        </>
      }
      lead={`Made from version ${draft.basedOn}. Saving makes the next version; jobs keep the one that they were done with.`}
    >
      <StaleNotice draft={draft} version={version} />
      <FactsEditor document={document} form={form} place={place} onChange={change} />
      <LooksEditor document={document} form={form} onChange={change} />
      {form.tables.map((t) => (
        <TableEditor key={t.id} table={t} rows={document.tables[t.id] ?? []} form={form} fromCsv={variant && <DriveCsv table={t} variant={variant} />} place={place} onChange={(rows) => change({ ...document, tables: { ...document.tables, [t.id]: rows } })} />
      ))}
      <SavePanel error={save.error} version={version} isSaving={save.isPending} draft={draft} onSave={submit} onLeave={leave} />
    </Page>
  )
}

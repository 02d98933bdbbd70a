import { useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { useSheetForm } from '@/api/sheets'
import { ProblemError } from '@/api/problem'
import type { SheetDetail, SheetForm } from '@/api/types'
import { useKept } from '@/lib/kept'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import type { SheetDocument } from './document'
import { useSaveSheet, useSheet } from './drive-queries'
import { FactsEditor } from './facts-editor'
import { LooksEditor } from './looks-editor'
import { TableEditor } from './table-editor'

/** Changing a sheet, or writing a new one from another's (`?from=`). What is typed stays in this browser until it is saved as the next version. */
export function SheetEditor() {
  const { variant = '' } = useParams()
  const from = useSearchParams()[0].get('from')
  const sheet = useSheet(from ?? variant)
  const form = useSheetForm()
  return (
    <Asked of={sheet} what={`the sheet of ${variant}`}>
      {(found) => (
        <Asked of={form} what="the tables">
          {(words) => <Editor key={variant} variant={variant} version={from ? 0 : found.version} start={documentOf(found, variant)} form={words} />}
        </Asked>
      )}
    </Asked>
  )
}

const documentOf = (sheet: SheetDetail, variant: string): SheetDocument => {
  const document = sheet.document as unknown as SheetDocument
  return { ...document, drive: { ...document.drive, variant } }
}

interface Draft {
  basedOn: number
  document: SheetDocument
}

/** `version` is the newest one on the server, 0 if there is none yet. */
function Editor({ variant, version, start, form }: { variant: string; version: number; start: SheetDocument; form: SheetForm }) {
  const [fresh] = useState<Draft>(() => ({ basedOn: version, document: start }))
  const [draft, setDraft, clear] = useKept<Draft>(`sheet:${variant}`, fresh)
  const [past, setPast] = useState<Draft[]>([])
  const save = useSaveSheet(variant)
  const navigate = useNavigate()
  const { document } = draft
  const change = (next: SheetDocument) => {
    setPast([...past.slice(-49), draft])
    setDraft({ ...draft, document: next })
    if (save.error) save.reset()
  }
  const undo = () => {
    setPast(past.slice(0, -1))
    setDraft(past.at(-1) ?? draft)
  }
  const isStale = draft.basedOn !== version
  const isChanged = version === 0 || JSON.stringify(document) !== JSON.stringify(start)
  const leave = () => {
    clear()
    void navigate(`/drives/${variant}`)
  }
  const submit = (why: string) => save.mutate({ based_on: draft.basedOn, document: document as unknown as Record<string, unknown>, why }, { onSuccess: leave })
  const place = save.error instanceof ProblemError ? String(save.error.problem.params.place ?? '') : ''
  return (
    <Page
      title={
        <>
          Edit <span className="figures">{variant}</span>
        </>
      }
      lead={draft.basedOn === 0 ? 'A new variant. Saving makes its first version.' : `Made from version ${draft.basedOn}. Saving makes the next version; jobs keep the one that they were done with.`}
    >
      {isStale && (
        <Notice tone="brass" title={`The sheet is at version ${version} by now`} role="status">
          <p>Somebody saved it meanwhile. Yours is kept here and cannot overwrite it.</p>
          <Button className="mt-2" onClick={() => setDraft({ basedOn: version, document })}>
            Put mine on top of version {version}
          </Button>
        </Notice>
      )}
      <FactsEditor document={document} form={form} place={place} onChange={change} />
      <LooksEditor document={document} form={form} onChange={change} />
      {form.tables.map((t) => (
        <TableEditor key={t.id} table={t} rows={document.tables[t.id] ?? []} form={form} variant={variant} place={place} onChange={(rows) => change({ ...document, tables: { ...document.tables, [t.id]: rows } })} />
      ))}
      <SavePanel
        error={save.error}
        place={place}
        says={save.isPending ? 'Saving…' : `Save as version ${version + 1}`}
        canSave={isChanged && !isStale && !save.isPending}
        isChanged={isChanged}
        onSave={submit}
        onUndo={past.length > 0 ? undo : undefined}
        onLeave={leave}
      />
    </Page>
  )
}

interface SaveProps {
  error: Error | null
  place: string
  says: string
  canSave: boolean
  isChanged: boolean
  onSave: (why: string) => void
  onUndo: (() => void) | undefined
  onLeave: () => void
}

function SavePanel({ error, place, says, canSave, isChanged, onSave, onUndo, onLeave }: SaveProps) {
  const [why, setWhy] = useState('')
  return (
    <Panel title="Save">
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault()
          onSave(why.trim())
        }}
      >
        <TextField label="What changed, and why" value={why} maxLength={120} onChange={(e) => setWhy(e.target.value)} />
        {error && (
          <Notice tone="danger" title="Not saved; nothing was changed" role="alert">
            {place && <p className="figures">{place}</p>}
            {error.message}
          </Notice>
        )}
        <div className="flex flex-wrap gap-2">
          <Button kind="act" type="submit" disabled={!canSave}>
            {says}
          </Button>
          <Button onClick={onUndo} disabled={onUndo === undefined}>
            Undo
          </Button>
          <Button kind="quiet" onClick={onLeave}>
            Leave it as it was
          </Button>
        </div>
        {!isChanged && <p className="text-quiet">Nothing changed yet.</p>}
      </form>
    </Panel>
  )
}

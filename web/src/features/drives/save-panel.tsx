import { useState } from 'react'
import { ProblemError } from '@/api/problem'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Notice, Panel } from '@/ui/panel'
import type { useDraft } from './use-draft'

/** The JSON pointer of what the server refused; '' if it refused nothing. */
export const refusedPlace = (error: Error | null): string => (error instanceof ProblemError ? String(error.problem.params.place ?? '') : '')

/** Somebody saved a newer version meanwhile: nothing is overwritten, and nothing of one's own is lost. */
export function StaleNotice({ draft, version }: { draft: Pick<ReturnType<typeof useDraft>, 'isStale' | 'rebase'>; version: number }) {
  if (!draft.isStale) return null
  return (
    <Notice tone="brass" title={`The sheet is at version ${version} by now`} role="status">
      <p>Somebody saved it meanwhile. Yours is kept here and cannot overwrite it.</p>
      <Button className="mt-2" onClick={draft.rebase}>
        Put mine on top of version {version}
      </Button>
    </Notice>
  )
}

interface Props {
  error: Error | null
  version: number
  isSaving: boolean
  draft: Pick<ReturnType<typeof useDraft>, 'isStale' | 'isChanged' | 'undo'>
  onSave: (why: string) => void
  onLeave: () => void
}

/** Saves a sheet as its next version, with why. */
export function SavePanel({ error, version, isSaving, draft, onSave, onLeave }: Props) {
  const [why, setWhy] = useState('')
  const place = refusedPlace(error)
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
          <Button kind="act" type="submit" disabled={!draft.isChanged || draft.isStale || isSaving}>
            {isSaving ? 'Saving…' : `Save as version ${version + 1}`}
          </Button>
          <Button onClick={draft.undo} disabled={draft.undo === undefined}>
            Undo
          </Button>
          <Button kind="quiet" onClick={onLeave}>
            Leave it as it was
          </Button>
        </div>
        {!draft.isChanged && <p className="text-quiet">Nothing changed yet.</p>}
      </form>
    </Panel>
  )
}

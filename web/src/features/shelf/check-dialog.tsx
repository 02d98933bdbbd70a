import type { UseMutationResult } from '@tanstack/react-query'
import { useState } from 'react'
import { functionWord } from '@/lib/words'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Choice, TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'

interface Props {
  title: string
  functions: readonly string[]
  check: Pick<UseMutationResult<unknown, Error, never>, "error" | "isPending"> & { mutate: (body: { seen: Record<string, boolean>; unit: string }, then: { onSuccess: () => void }) => void }
  onClose: () => void
}

/** What a part or donor was seen to do, and in which unit. What nobody tried stays untested. */
export function CheckDialog({ title, functions, check, onClose }: Props) {
  const [seen, setSeen] = useState<Record<string, string>>({})
  const [unit, setUnit] = useState('')
  const told = Object.fromEntries(Object.entries(seen).map(([f, s]) => [f, s === 'works']))
  const isReady = Object.keys(told).length > 0
  return (
    <Dialog title={title} open onClose={onClose} note="Only what was seen: a swap clears a part only as far as it is known good in that function.">
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault()
          if (isReady) check.mutate({ seen: told, unit: unit.trim() }, { onSuccess: onClose })
        }}
      >
        {functions.map((f) => (
          <Choice
            key={f}
            inline
            label={functionWord(f)}
            choices={[
              { id: 'works', label: 'Works' },
              { id: 'fails', label: 'Fails' },
            ]}
            value={seen[f] ?? ''}
            onChange={(state) => setSeen({ ...seen, [f]: state })}
          />
        ))}
        <TextField label="In which unit" hint="A tag, or what it was tried in." value={unit} maxLength={60} onChange={(e) => setUnit(e.target.value)} />
        {check.error && (
          <Notice tone="danger" title="Not written" role="alert">
            {check.error.message}
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={!isReady || check.isPending}>
          Write it down
        </Button>
      </form>
    </Dialog>
  )
}

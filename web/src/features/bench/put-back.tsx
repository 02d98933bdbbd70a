import { useState } from 'react'
import type { Swaps } from '@/api/types'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Choice } from '@/ui/field'
import { useBench } from './bench-context'
import { FUNCTIONS } from './item-fields'

/** A part goes back on the shelf: what it was seen to do here goes with it, so that the next one need not guess. */
export function PutBack({ part }: { part: Swaps['parts'][number] }) {
  const { send, isBusy } = useBench()
  const [isOpen, setOpen] = useState(false)
  const [seen, setSeen] = useState<Record<string, string>>({})
  return (
    <>
      <Button kind="quiet" disabled={isBusy} onClick={() => setOpen(true)}>
        Back on the shelf
      </Button>
      {isOpen && (
        <Dialog title={`${part.item} goes back on the shelf`} open onClose={() => setOpen(false)} note="Say what it was seen to do in this unit; leave open what nobody tried.">
          <form
            className="space-y-3"
            onSubmit={(event) => {
              event.preventDefault()
              send({ do: 'put_back', line: part.line, seen: Object.fromEntries(Object.entries(seen).map(([f, s]) => [f, s === 'works'])) }, `${part.item} back on the shelf`)
              setOpen(false)
            }}
          >
            {FUNCTIONS.map((f) => (
              <Choice
                key={f.id}
                inline
                label={f.label}
                choices={[
                  { id: 'works', label: 'Works' },
                  { id: 'fails', label: 'Fails' },
                ]}
                value={seen[f.id] ?? ''}
                onChange={(state) => setSeen({ ...seen, [f.id]: state })}
              />
            ))}
            <Button kind="act" type="submit" disabled={isBusy}>
              Put it back
            </Button>
          </form>
        </Dialog>
      )}
    </>
  )
}

import { useState } from 'react'
import * as z from 'zod/mini'
import type { Swaps } from '@/api/types'
import { seen } from '@/lib/fields'
import { WORKS_OR_FAILS } from '@/lib/words'
import { Button } from '@/ui/button'
import { ChoiceInput, FieldsDialog } from '@/ui/form-dialog'
import { useBench } from '../frame/bench-context'
import { FUNCTIONS } from './item-fields'

const SEEN = z.object({ seen: seen() })

/** A part goes back on the shelf: what it was seen to do here goes with it, so that the next one need not guess. */
export function PutBack({ part }: { part: Swaps['parts'][number] }) {
  const { send, isBusy } = useBench()
  const [isOpen, setOpen] = useState(false)
  return (
    <>
      <Button kind="quiet" disabled={isBusy} onClick={() => setOpen(true)}>
        Back on the shelf
      </Button>
      {isOpen && (
        <FieldsDialog
          title={`${part.item} goes back on the shelf`}
          note="Say what it was seen to do in this unit; leave open what nobody tried."
          act="Put it back"
          schema={SEEN}
          start={{ seen: {} }}
          isBusy={isBusy}
          onSend={(said) => {
            send({ do: 'put_back', line: part.line, seen: said.seen }, `${part.item} back on the shelf`)
            setOpen(false)
          }}
          onClose={() => setOpen(false)}
        >
          {FUNCTIONS.map((f) => (
            <ChoiceInput key={f.id} name={`seen.${f.id}`} inline label={f.label} choices={WORKS_OR_FAILS} />
          ))}
        </FieldsDialog>
      )}
    </>
  )
}

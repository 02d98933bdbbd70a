import { useState } from 'react'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { useSay } from '@/api/sheets'
import type { Source } from '@/api/types'
import { text } from '@/lib/fields'
import { Button } from '@/ui/button'
import { FieldsDialog, TextInput } from '@/ui/form-dialog'
import { useBench } from '../frame/bench-context'

const { reason } = BOUNDS.SayIn
const SEEN = z.object({ reason: text(reason) })

/** A wrong "fits" found at the bench: one step, with the job as its witness, and shown everywhere from then on. */
export function DoesNotFit({ source }: { source: Source }) {
  const { job } = useBench()
  const say = useSay()
  const [isOpen, setOpen] = useState(false)
  const { level, code } = source
  const { variant } = job.drive
  return (
    <>
      <Button kind="quiet" onClick={() => setOpen(true)} aria-label={`Does not fit: ${source.tag}`}>
        Does not fit
      </Button>
      {isOpen && (
        <FieldsDialog
          title={`${code} does not fit ${variant}`}
          note={`Written down as found in ${job.tag}, with your name. It is offered to no ${variant} any more.`}
          act="Write it down"
          schema={SEEN}
          start={{ reason: '' }}
          error={say.error}
          isBusy={say.isPending}
          onSend={(said) => say.mutate({ level, code, variant, verdict: 'no', ...said, origin: 'shop', confidence: 'sure', said: job.tag }, { onSuccess: () => setOpen(false) })}
          onClose={() => setOpen(false)}
        >
          <TextInput name="reason" label="What was seen" maxLength={reason.maxLength} />
        </FieldsDialog>
      )}
    </>
  )
}

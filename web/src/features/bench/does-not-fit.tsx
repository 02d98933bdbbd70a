import { useState } from 'react'
import { useSay } from '@/api/sheets'
import type { Source } from '@/api/types'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'
import { useBench } from './bench-context'

/** A wrong "fits" found at the bench: one step, with the job as its witness, and shown everywhere from then on. */
export function DoesNotFit({ source }: { source: Source }) {
  const { job } = useBench()
  const say = useSay()
  const [isOpen, setOpen] = useState(false)
  const [reason, setReason] = useState('')
  const { level, code } = source
  const save = () =>
    say.mutate(
      { level, code, variant: job.drive.variant, verdict: 'no', reason: reason.trim(), origin: 'shop', confidence: 'sure', said: job.tag },
      { onSuccess: () => setOpen(false) },
    )
  return (
    <>
      <Button kind="quiet" onClick={() => setOpen(true)} aria-label={`Does not fit: ${source.tag}`}>
        Does not fit
      </Button>
      {isOpen && (
        <Dialog title={`${code} does not fit ${job.drive.variant}`} open onClose={() => setOpen(false)} note={`Written down as found in ${job.tag}, with your name. It is offered to no ${job.drive.variant} any more.`}>
          <form
            className="space-y-4"
            onSubmit={(event) => {
              event.preventDefault()
              save()
            }}
          >
            <TextField label="What was seen" value={reason} maxLength={120} onChange={(e) => setReason(e.target.value)} />
            {say.error && (
              <Notice tone="danger" title="Not written" role="alert">
                {say.error.message}
              </Notice>
            )}
            <Button kind="act" type="submit" disabled={say.isPending}>
              Write it down
            </Button>
          </form>
        </Dialog>
      )}
    </>
  )
}

import type { ReactNode } from 'react'
import { useState } from 'react'
import { useMay } from '@/api/session'
import type { Job } from '@/api/types'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { TextField } from '@/ui/field'
import { FileLink } from '@/ui/file-link'
import { PrintLabels } from '@/ui/labels'
import { useBench } from '../frame/bench-context'
import type { SaveNotes } from '../frame/asks'
import { EarlierJobs } from './earlier-jobs'
import { Told } from './told'

interface Props {
  counter: (job: Job, onSave: SaveNotes) => ReactNode
  onClose: () => void
}

/** Everything about the owner and the papers of a unit: who was told what, tag and receipt, what was written down wrongly. */
export function OwnerDialog({ counter, onClose }: Props) {
  const { job, send } = useBench()
  const mayTakeIn = useMay('take_in')
  const isOpen = job.stage !== 'closed'
  return (
    <Dialog title={`${job.tag}: owner and papers`} open onClose={onClose}>
      <div className="space-y-5">
        <p>
          <b>{job.owner_name}</b>, {job.owner_contact || 'no contact yet'}
        </p>
        <p className="flex flex-wrap gap-2">
          <PrintLabels tags={[job.tag]}>Print its tag</PrintLabels>
          <FileLink href={`/api/jobs/${job.tag}/receipt.pdf`} isShown>
            Receipt (PDF)
          </FileLink>
          <FileLink href={`/api/jobs/${job.tag}/report.pdf`} isShown>
            Report (PDF)
          </FileLink>
          <FileLink href={`/api/jobs/${job.tag}/record`}>Whole job as a file</FileLink>
          <FileLink href={`/api/jobs/${job.tag}/archive`}>With photos and recordings (ZIP)</FileLink>
        </p>
        <Told />
        <EarlierJobs tag={job.tag} />
        {isOpen && mayTakeIn && (
          <>
            <Unfolding title="Put right what was written down">{counter(job, (notes) => send({ do: 'amend', ...notes }, "The counter's notes"))}</Unfolding>
            <Unfolding title="It was taken in by mistake">
              <VoidForm onDone={onClose} />
            </Unfolding>
          </>
        )}
      </div>
    </Dialog>
  )
}

function Unfolding({ title, children }: { title: string; children: ReactNode }) {
  return (
    <details className="rounded-lg border border-line px-3">
      <summary className="min-h-11 content-center font-semibold">{title}</summary>
      <div className="pb-3">{children}</div>
    </details>
  )
}

/** It leaves the day; its tape stays, and it can stand again. */
function VoidForm({ onDone }: { onDone: () => void }) {
  const { send, isBusy } = useBench()
  const [why, setWhy] = useState('')
  return (
    <form
      className="space-y-3"
      onSubmit={(event) => {
        event.preventDefault()
        send({ do: 'void', why: why.trim() }, `Taken in by mistake: ${why.trim()}`)
        onDone()
      }}
    >
      <TextField label="Why?" hint="It leaves the day and stands under Closed, where it can be taken back." value={why} maxLength={120} onChange={(e) => setWhy(e.target.value)} />
      <Button type="submit" disabled={isBusy || why.trim() === ''}>
        Take it out of the day
      </Button>
    </form>
  )
}

import { useState } from 'react'
import type { Job } from '@/api/types'
import { centsOf } from '@/lib/money'
import { Button } from '@/ui/button'
import { Choice } from '@/ui/field'
import { Waiting } from '@/ui/panel'
import { IntakeFields, limitError, promiseError, type Notes } from './intake-fields'
import { usePrompts } from './intake-queries'

export interface Amended {
  owner_name: string
  owner_contact: string
  complaint: string
  supply: string
  limit_cents: number | null
  promised_on: string | null
  condition: Record<string, string>
  is_promise_withdrawn: boolean
  is_covered: boolean
}

const notesOf = (job: Job): Notes => ({
  owner_name: job.owner_name,
  owner_contact: job.owner_contact,
  complaint: job.complaint,
  supply: job.supply,
  limit: job.limit_cents === null ? '' : String(job.limit_cents / 100),
  promised_on: job.promised_on ?? '',
  isPastMeant: job.promised_on !== null,
  condition: Object.fromEntries(job.condition.map((c) => [c.id, c.choice])),
})

/** Completes or puts right what was written down at the counter, for as long as the job is open. */
export function AmendForm({ job, onSave }: { job: Job; onSave: (amended: Partial<Amended>) => void }) {
  const prompts = usePrompts()
  const [notes, setNotes] = useState(() => notesOf(job))
  const [isCovered, setCovered] = useState(job.returns?.is_covered ?? false)
  if (!prompts.data) return <Waiting what="Fetching the prompts…" />
  const was = notesOf(job)
  const changed = { ...changes(was, notes), ...(isCovered === (job.returns?.is_covered ?? false) ? {} : { is_covered: isCovered }) }
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault()
        if (Object.keys(changed).length > 0 && !limitError(notes.limit)) onSave(changed)
      }}
    >
      <IntakeFields notes={notes} onChange={setNotes} prompts={prompts.data} />
      {job.returns && (
        <Choice
          label={`Is it the fault of ${job.returns.tag} again, inside its guarantee?`}
          choices={[
            { id: 'yes', label: 'Yes: the owner pays nothing' },
            { id: 'no', label: 'No' },
          ]}
          value={isCovered ? 'yes' : 'no'}
          onChange={(id) => setCovered(id === 'yes')}
        />
      )}
      <Button kind="act" type="submit" disabled={Object.keys(changed).length === 0 || promiseError(notes) !== undefined}>
        Save the notes
      </Button>
    </form>
  )
}

function changes(was: Notes, now: Notes): Partial<Amended> {
  const out: Partial<Amended> = {}
  for (const name of ['owner_name', 'owner_contact', 'complaint', 'supply'] as const) if (now[name].trim() !== was[name]) out[name] = now[name].trim()
  if (now.limit !== was.limit && now.limit.trim() !== '') out.limit_cents = centsOf(now.limit)
  if (now.promised_on && now.promised_on !== was.promised_on) out.promised_on = now.promised_on
  if (!now.promised_on && was.promised_on) out.is_promise_withdrawn = true
  const condition = Object.fromEntries(Object.entries(now.condition).filter(([k, v]) => was.condition[k] !== v))
  if (Object.keys(condition).length > 0) out.condition = condition
  return out
}

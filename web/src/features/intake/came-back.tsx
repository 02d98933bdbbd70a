import { useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { PastJob } from '@/api/types'
import { dayOf } from '@/lib/dates'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Choice } from '@/ui/field'
import { Panel } from '@/ui/panel'
import type { Draft } from './draft'

interface Props {
  tag: string
  draft: Draft
  onChange: (part: Partial<Draft>) => void
}

const find = (tag: string) => dataOf(client.GET('/api/closed', { params: { query: { q: tag } } }))

/** The unit came back: which job it was, whether it is the same fault, and what that means for the price. */
export function CameBack({ tag, draft, onChange }: Props) {
  const found = useQuery({ queryKey: ['closed', tag], queryFn: () => find(tag) })
  return (
    <Panel title={`It came back after ${tag}`} aside={<Button kind="quiet" onClick={() => onChange({ returns: '', sameFault: '' })}>It did not</Button>}>
      <Asked of={found} what={tag}>
        {(jobs) => {
          const job = jobs.find((j) => j.tag === tag)
          return job ? <Before job={job} draft={draft} onChange={onChange} /> : <p>{tag} is no closed job. If it is still in the house, go on with it there.</p>
        }}
      </Asked>
    </Panel>
  )
}

function Before({ job, draft, onChange }: { job: PastJob } & Omit<Props, 'tag'>) {
  const { sheet, notes } = draft
  useEffect(() => {
    if (sheet === '' && notes.owner_name === '') onChange({ sheet: String(job.sheet_id), notes: { ...notes, owner_name: job.owner_name, owner_contact: job.owner_contact } })
    // eslint-disable-next-line react-hooks/exhaustive-deps -- taken over once, when the job is known: what is typed afterwards stays
  }, [job.tag])
  const inside = job.guarantee_until === null ? 'It had no guarantee.' : job.is_covered ? `Its guarantee runs until ${dayOf(job.guarantee_until)}.` : `Its guarantee ended on ${dayOf(job.guarantee_until)}.`
  return (
    <div className="space-y-2">
      <p>
        {job.console}, {job.owner_name}: <b>{job.outcome}</b>
        {job.closed_at && `, ${dayOf(job.closed_at)}`}. {inside}{' '}
        <a className="inline-flex min-h-11 items-center underline underline-offset-3" href={`/bench/${job.tag}`} target="_blank" rel="noreferrer">
          Its tape
        </a>
      </p>
      <Choice
        label="Is it the same fault?"
        choices={[
          { id: 'yes', label: 'The same' },
          { id: 'no', label: 'Another' },
        ]}
        value={draft.sameFault}
        onChange={(id) => onChange({ sameFault: id as Draft['sameFault'] })}
      />
      {draft.sameFault !== '' && (
        <p role="status" className="font-semibold">
          {draft.sameFault === 'yes' && job.is_covered ? 'The owner pays nothing for it. If the bench finds another fault, that is put right and agreed anew.' : 'It is a new job at the usual price.'}
        </p>
      )}
    </div>
  )
}

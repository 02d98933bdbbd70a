import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { Owner, PastJob } from '@/api/types'
import { dayOf } from '@/lib/dates'
import { useSettled } from '@/lib/use-settled'
import { Button } from '@/ui/button'
import { Chip } from '@/ui/panel'
import type { Draft } from './draft'

const LEAST = 3
const ask = (q: string) => dataOf(client.GET('/api/owners', { params: { query: { q } } }))

interface Props {
  draft: Draft
  onChange: (part: Partial<Draft>) => void
}

const isThis = (owner: Owner, { notes }: Draft): boolean => owner.name === notes.owner_name.trim() && owner.contact === notes.owner_contact.trim()

/** An owner whom the shop knows, by name or phone: taken over with a press, with the units that were here before. */
export function KnownOwner({ draft, onChange }: Props) {
  const { owner_name, owner_contact } = draft.notes
  const words = useSettled(owner_name.trim().length >= LEAST ? owner_name.trim() : owner_contact.trim())
  const found = useQuery({ queryKey: ['owners', words], queryFn: () => ask(words), enabled: words.length >= LEAST })
  const owners = found.data ?? []
  if (words.length < LEAST || owners.length === 0) return null
  return (
    <section aria-label="Known owners" className="rounded-lg border border-line bg-mat/60 p-2.5">
      <ul className="space-y-1.5">
        {owners.map((o) => (
          <li key={`${o.name} ${o.contact}`}>
            <span className="flex flex-wrap items-center gap-x-3">
              <b>{o.name}</b> <span className="text-quiet">{o.contact || 'no contact'}</span>
              {isThis(o, draft) ? (
                <Chip tone="clear">known here</Chip>
              ) : (
                <Button onClick={() => onChange({ notes: { ...draft.notes, owner_name: o.name, owner_contact: o.contact } })}>It is this owner</Button>
              )}
            </span>
            {isThis(o, draft) && <Units jobs={o.jobs} draft={draft} onChange={onChange} />}
          </li>
        ))}
      </ul>
    </section>
  )
}

function Units({ jobs, draft, onChange }: Props & { jobs: readonly PastJob[] }) {
  return (
    <ul className="mt-1 divide-y divide-line">
      {jobs.map((j) => (
        <li key={j.tag} className="flex flex-wrap items-center gap-x-3">
          <a href={`/bench/${j.tag}`} target="_blank" rel="noreferrer" className="figures inline-flex min-h-11 items-center font-semibold underline underline-offset-3">
            {j.tag}
          </a>
          <span>{j.console}</span>
          <span className="text-quiet">
            {j.outcome}
            {j.closed_at && `, ${dayOf(j.closed_at)}`}
          </span>
          {j.is_covered && <Chip tone="clear">inside its guarantee</Chip>}
          {j.closed_at && !j.is_void && draft.returns !== j.tag && (
            <Button className="ml-auto" onClick={() => onChange({ returns: j.tag, sheet: String(j.sheet_id), sameFault: '' })}>
              This unit came back
            </Button>
          )}
        </li>
      ))}
    </ul>
  )
}

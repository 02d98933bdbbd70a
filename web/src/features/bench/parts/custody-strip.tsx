import { useState } from 'react'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { useMay } from '@/api/session'
import type { Custody } from '@/api/types'
import { sinceWhen } from '@/lib/dates'
import { one, words } from '@/lib/fields'
import { Button } from '@/ui/button'
import { FieldsDialog, SelectInput, TextInput } from '@/ui/form-dialog'
import { PrintLabels } from '@/ui/labels'
import { Chip } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { useWorkbench } from './parts-that-fit'

/** What of this unit is out of it: in sight on every stage until it is back. */
export function CustodyStrip() {
  const { job } = useBench()
  if (job.custody.length === 0) return null
  return (
    <section aria-label="Out of this unit" className="rounded-xl border border-brass/55 bg-brass-soft px-4 py-2">
      <ul className="divide-y divide-brass/25">
        {job.custody.map((c) => (
          <OutRow key={c.tag} piece={c} />
        ))}
      </ul>
    </section>
  )
}

function OutRow({ piece: c }: { piece: Custody }) {
  const { send, isBusy, mayWork, job } = useBench()
  const mayAgree = useMay('agree')
  const [isLeaving, setLeaving] = useState(false)
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1">
      <span className="min-w-0 flex-1">
        <b>Out of this unit:</b> {c.name.toLowerCase()} <b className="figures">{c.tag}</b>, {c.place || 'nobody wrote where'}, {sinceWhen(c.since)}{' '}
        {c.is_key && <Chip tone="danger">carries the pairing: no other is accepted</Chip>}
      </span>
      {mayWork && (
        <Button disabled={isBusy} onClick={() => send({ do: 'own_back', part: c.tag }, `${c.tag} is back in its unit`)}>
          It is back in
        </Button>
      )}
      <PrintLabels tags={[c.tag]}>Print its label</PrintLabels>
      {mayAgree && (
        <Button kind="quiet" disabled={isBusy} onClick={() => setLeaving(true)}>
          The owner leaves it here
        </Button>
      )}
      {isLeaving && (
        <FieldsDialog
          title={`${c.tag} stays here`}
          note="From then on it is stock, health not known. Only the owner can say so."
          act="Write it down"
          schema={LEAVES}
          start={{ by_name: job.owner_name }}
          isBusy={isBusy}
          onSend={(said) => {
            send({ do: 'own_left', part: c.tag, ...said }, `${c.tag} left here`)
            setLeaving(false)
          }}
          onClose={() => setLeaving(false)}
        >
          <TextInput name="by_name" label="Who said so" maxLength={BOUNDS.ReleaseOwnAsk.by_name.maxLength} />
        </FieldsDialog>
      )}
    </li>
  )
}

const LEAVES = z.object({ by_name: words(BOUNDS.ReleaseOwnAsk.by_name) })
const OUT = z.object({ level: one(), place: words(BOUNDS.TakeOutOwnAsk.place) })

/** A part of the owner's leaves the unit: which, and where it will lie. */
export function TakeOutDialog({ onClose }: { onClose: () => void }) {
  const { job, send, isBusy } = useBench()
  const bench = useWorkbench(job.tag, job.version)
  return (
    <FieldsDialog
      title="An own part leaves the unit"
      note="It gets a tag of its own under the job's, and the unit does not leave without it."
      act="Tag it"
      schema={OUT}
      start={{ level: '', place: '' }}
      isBusy={isBusy}
      onSend={(said) => {
        send({ do: 'own_out', ...said }, 'Own part out of its unit')
        onClose()
      }}
      onClose={onClose}
    >
      <SelectInput name="level" label="Which part?" choices={bench.data?.pieces.map((p) => ({ id: p.id, label: p.name })) ?? []} />
      <TextInput name="place" label="Where does it lie?" maxLength={BOUNDS.TakeOutOwnAsk.place.maxLength} />
    </FieldsDialog>
  )
}

import { useState } from 'react'
import { useMay } from '@/api/session'
import type { Custody } from '@/api/types'
import { sinceWhen } from '@/lib/dates'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { TextField } from '@/ui/field'
import { PrintLabels } from '@/ui/labels'
import { Chip } from '@/ui/panel'
import { useBench } from './bench-context'
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
  const [name, setName] = useState(job.owner_name)
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
        <Dialog title={`${c.tag} stays here`} open onClose={() => setLeaving(false)} note="From then on it is stock, health not known. Only the owner can say so.">
          <form
            className="space-y-4"
            onSubmit={(event) => {
              event.preventDefault()
              if (!name.trim()) return
              send({ do: 'own_left', part: c.tag, by_name: name.trim() }, `${c.tag} left here`)
              setLeaving(false)
            }}
          >
            <TextField label="Who said so" value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
            <Button kind="act" type="submit" disabled={!name.trim() || isBusy}>
              Write it down
            </Button>
          </form>
        </Dialog>
      )}
    </li>
  )
}

/** A part of the owner's leaves the unit: which, and where it will lie. */
export function TakeOutDialog({ onClose }: { onClose: () => void }) {
  const { job, send, isBusy } = useBench()
  const bench = useWorkbench(job.tag, job.version)
  const [level, setLevel] = useState('')
  const [place, setPlace] = useState('')
  return (
    <Dialog title="An own part leaves the unit" open onClose={onClose} note="It gets a tag of its own under the job's, and the unit does not leave without it.">
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (!level || !place.trim()) return
          send({ do: 'own_out', level, place: place.trim() }, 'Own part out of its unit')
          onClose()
        }}
      >
        <label className="block">
          <span className="mb-1 block font-semibold">Which part?</span>
          <select className="min-h-11 w-full rounded-lg border border-ink/55 bg-paper px-3" value={level} onChange={(e) => setLevel(e.target.value)}>
            <option value="">Choose…</option>
            {bench.data?.pieces.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </label>
        <TextField label="Where does it lie?" value={place} maxLength={60} onChange={(e) => setPlace(e.target.value)} />
        <Button kind="act" type="submit" disabled={!level || !place.trim() || isBusy}>
          Tag it
        </Button>
      </form>
    </Dialog>
  )
}

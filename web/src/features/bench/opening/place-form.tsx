import { useState } from 'react'
import { decimalOf } from '@/lib/whole'
import { Button } from '@/ui/button'
import { Choice, TextField } from '@/ui/field'
import { useBench } from '../frame/bench-context'
import { stateName } from './mat-picture'
import type { MatGroup, MatPlace } from './mat-queries'

const SAID = ['in', 'missing', 'replaced', 'explained'] as const
type Said = (typeof SAID)[number]
const CHOICES = SAID.map((id) => ({ id, label: { in: 'Its own screw', missing: 'None was there', replaced: 'Another screw', explained: 'Stays empty' }[id] }))

const intoSight = (form: HTMLFormElement | null) => form?.scrollIntoView?.({ block: 'nearest' })

/** What is true of one place, where it is not simply its own screw. A screw that would reach something is refused by the server, with what it reaches. */
export function PlaceForm({ group, place, name, onDone }: { group: MatGroup; place: MatPlace; name: string; onDone: () => void }) {
  const { send, isBusy } = useBench()
  const [state, setState] = useState<Said>(place.state === 'out' ? 'in' : place.state)
  const [why, setWhy] = useState('')
  const [length, setLength] = useState('')
  const [thread, setThread] = useState(String(group.thread_mm))
  const [lengthMm, threadMm] = [decimalOf(length), decimalOf(thread)]
  const isReady = state === 'replaced' ? lengthMm !== null && threadMm !== null : state !== 'explained' || why.trim() !== ''
  const say = () => {
    const size = state === 'replaced' ? { length_mm: lengthMm ?? 0, thread_mm: threadMm ?? 0, head: group.head } : {}
    send({ do: 'mark_place', place: place.id, state, why: why.trim(), ...size }, `${name}: ${stateName(state)}`)
    onDone()
  }
  return (
    <form
      ref={intoSight}
      aria-label={name}
      className="mt-1 mb-2 space-y-3 rounded-lg border border-ink/45 bg-mat/40 p-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (isReady && !isBusy) say()
      }}
    >
      <Choice label={`${name}: ${group.screw}`} choices={CHOICES} value={state} onChange={(id) => setState(id as Said)} />
      {state === 'replaced' && (
        <div className="grid gap-3 sm:grid-cols-2">
          <TextField label="Its length, mm" inputMode="decimal" value={length} maxLength={6} hint={`The place’s own is ${group.length_mm} mm. Without its head, but for countersunk ones.`} onChange={(e) => setLength(e.target.value)} />
          <TextField label="Its thread, mm" inputMode="decimal" value={thread} maxLength={6} onChange={(e) => setThread(e.target.value)} />
        </div>
      )}
      {state !== 'in' && <TextField label={state === 'explained' ? 'Why does it stay empty?' : 'What else is to be said'} value={why} maxLength={120} onChange={(e) => setWhy(e.target.value)} />}
      <div className="flex gap-2">
        <Button kind="act" type="submit" disabled={!isReady || isBusy}>
          Write it down
        </Button>
        <Button kind="quiet" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  )
}

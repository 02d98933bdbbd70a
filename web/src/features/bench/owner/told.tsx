import { useState } from 'react'
import { useMay } from '@/api/session'
import { dayOf, timeOf } from '@/lib/dates'
import { Button } from '@/ui/button'
import { Choice, TextField } from '@/ui/field'
import { useBench } from '../frame/bench-context'
import type { AskOf } from '../frame/asks'

type Means = AskOf<'tell_owner'>['means']
const MEANS: readonly { id: Means; label: string; says: string }[] = [
  { id: 'phone', label: 'By phone', says: 'told by phone' },
  { id: 'message', label: 'By message', says: 'told by message' },
  { id: 'person', label: 'At the counter', says: 'told at the counter' },
  { id: 'in_vain', label: 'Not reached', says: 'was not reached' },
]

/** Who told the owner what, and how; and one more time. */
export function Told() {
  const { job, send, isBusy } = useBench()
  const mayNote = useMay('note')
  const [means, setMeans] = useState<Means | ''>('')
  const [what, setWhat] = useState('')
  const tell = () => {
    if (means === '') return
    send({ do: 'tell_owner', means, what: what.trim() }, `The owner ${MEANS.find((m) => m.id === means)?.says}`)
    setMeans('')
    setWhat('')
  }
  return (
    <section aria-label="What the owner was told" className="space-y-2">
      <h3 className="font-bold">What the owner was told</h3>
      {job.told.length === 0 && <p className="text-quiet">Nothing yet.</p>}
      <ul>
        {job.told.map((t) => (
          <li key={t.at} className="border-l-3 border-line py-0.5 pl-2.5">
            {t.what || MEANS.find((m) => m.id === t.means)?.says}{' '}
            <span className="text-tiny text-quiet">
              {MEANS.find((m) => m.id === t.means)?.says} by {t.by}, {dayOf(t.at)} <span className="figures">{timeOf(t.at)}</span>
            </span>
          </li>
        ))}
      </ul>
      {mayNote && (
        <form
          className="space-y-2"
          onSubmit={(event) => {
            event.preventDefault()
            tell()
          }}
        >
          <Choice label="The owner was told" choices={MEANS} value={means} onChange={(id) => setMeans(id as Means)} />
          {means !== '' && (
            <div className="flex flex-wrap items-end gap-2">
              <div className="min-w-56 flex-1">
                <TextField label="What?" value={what} maxLength={400} onChange={(e) => setWhat(e.target.value)} />
              </div>
              <Button kind="act" type="submit" disabled={isBusy}>
                Write it down
              </Button>
            </div>
          )}
        </form>
      )}
    </section>
  )
}

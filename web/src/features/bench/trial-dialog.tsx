import { useState } from 'react'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Choice, TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'
import { useBench } from './bench-context'

const HEALTHS = [
  { id: 'proven', label: 'Proven in a working unit' },
  { id: 'new', label: 'New' },
  { id: 'unknown', label: 'Not known' },
] as const
const RESULTS = [
  { id: 'no_change', label: 'No change' },
  { id: 'worse', label: 'Worse' },
  { id: 'clean', label: 'Works' },
] as const
type Health = (typeof HEALTHS)[number]['id']
type Result = (typeof RESULTS)[number]['id']

/** What a trial after a change showed. A part that went in is only as good as what is known of it. */
export function TrialDialog({ repair, onClose }: { repair: string; onClose: () => void }) {
  const { job, send, isBusy } = useBench()
  const repairs = job.repairs
  const [picked, setPicked] = useState(repair)
  const [item, setItem] = useState('')
  const [health, setHealth] = useState<Health | ''>('')
  const [result, setResult] = useState<Result | ''>('')
  const own = repairs.find((r) => r.id === picked)
  const isReady = own && result && (!own.uses_item || health) && job.is_live
  const save = () => {
    if (!isReady) return
    send(
      '/api/jobs/{tag}/trials',
      { changes: [{ repair: own.id, item: own.uses_item ? item.trim() : '', health: own.uses_item ? (health as Health) : 'proven' }], result, clean_passes: result === 'clean' ? 1 : 0 },
      `Trial: ${own.name}, ${RESULTS.find((r) => r.id === result)!.label.toLowerCase()}`,
    )
    onClose()
  }
  const setMains = () => send('/api/jobs/{tag}/mains', { is_live: true }, 'Mains live')
  return (
    <Dialog title="Log a trial" open onClose={onClose} note="One change at a time: what changed together shares the credit.">
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <label className="block">
          <span className="mb-1 block font-semibold">What was changed?</span>
          <select className="min-h-11 w-full rounded-lg border border-ink/55 bg-paper px-3" value={picked} onChange={(e) => setPicked(e.target.value)}>
            <option value="">Choose…</option>
            {repairs.map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}
              </option>
            ))}
          </select>
        </label>
        {own?.uses_item && (
          <>
            <TextField label="Tag of the part that went in" hint="The same part tried twice counts once. Leave empty if it has none." value={item} maxLength={60} onChange={(e) => setItem(e.target.value)} />
            <Choice label="What is known of it?" choices={HEALTHS} value={health} onChange={(id) => setHealth(id as Health)} />
          </>
        )}
        <Choice label="What did the trial show?" choices={RESULTS} value={result} onChange={(id) => setResult(id as Result)} />
        {!job.is_live && (
          <Notice tone="brass" title="A trial needs the mains live; it is out">
            <Button onClick={setMains} disabled={isBusy || job.power_hold !== ''} className="mt-1">
              Mains is live now
            </Button>
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={!isReady || isBusy}>
          Log the trial
        </Button>
      </form>
    </Dialog>
  )
}

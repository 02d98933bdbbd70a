import { useState } from 'react'
import { centsOf } from '@/lib/money'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Choice, TextField } from '@/ui/field'
import { useBench } from './bench-context'
import { Functions, HEALTHS, type FunctionName, type Health } from './item-fields'

const PLACES = [
  { id: 'shelf', label: 'Here' },
  { id: 'donor', label: 'In a donor' },
  { id: 'transit', label: 'On its way' },
] as const

/** A part that this job can use: it changes what a step costs, how long it waits, and how sure it is. */
export function PartDialog({ onClose }: { onClose: () => void }) {
  const { job, send, isBusy } = useBench()
  const [repair, setRepair] = useState('')
  const [item, setItem] = useState('')
  const [place, setPlace] = useState('')
  const [health, setHealth] = useState<Health | ''>('')
  const [works, setWorks] = useState<FunctionName[]>([])
  const [price, setPrice] = useState('')
  const [days, setDays] = useState('')
  const cents = price.trim() === '' ? 0 : centsOf(price)
  const wait = place === 'transit' ? Number(days.replace(',', '.')) : 0
  const isDaysWrong = place === 'transit' && !(wait > 0 && wait <= 365)
  const isReady = repair && place && health && cents !== null && !isDaysWrong
  const save = () => {
    if (!isReady) return
    send(
      { do: 'note_part', repair, item: item.trim(), health, works, fails: [], price_cents: cents, wait_days: wait, is_donor: place === 'donor' },
      `Part noted: ${item.trim() || 'without a tag'}`,
    )
    onClose()
  }
  return (
    <Dialog title="Note a part for this job" open onClose={onClose}>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <label className="block">
          <span className="mb-1 block font-semibold">For which repair?</span>
          <select className="min-h-11 w-full rounded-lg border border-ink/55 bg-paper px-3" value={repair} onChange={(e) => setRepair(e.target.value)}>
            <option value="">Choose…</option>
            {job.repairs
              .filter((r) => r.uses_item)
              .map((r) => (
                <option key={r.id} value={r.id}>
                  {r.name}
                </option>
              ))}
          </select>
        </label>
        <TextField label="Its tag" value={item} maxLength={60} onChange={(e) => setItem(e.target.value)} />
        <Choice label="Where is it?" choices={PLACES} value={place} onChange={setPlace} />
        {place === 'transit' && (
          <TextField label="Here in how many days?" inputMode="decimal" value={days} onChange={(e) => setDays(e.target.value)} error={days && isDaysWrong ? 'A number of days from 1 to 365.' : undefined} />
        )}
        <Choice label="What is known of it?" choices={HEALTHS} value={health} onChange={(id) => setHealth(id as Health)} />
        {health === 'unknown' && <Functions value={works} onChange={setWorks} />}
        <TextField
          label="Its price to this job, in euro"
          hint="Empty if it costs nothing more."
          inputMode="decimal"
          value={price}
          onChange={(e) => setPrice(e.target.value)}
          error={cents === null ? 'An amount like 24 or 24.50.' : undefined}
        />
        <Button kind="act" type="submit" disabled={!isReady || isBusy}>
          Note the part
        </Button>
      </form>
    </Dialog>
  )
}

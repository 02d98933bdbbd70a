import { useState } from 'react'
import { Choice, Select, TextField } from '@/ui/field'
import { FormDialog } from '@/ui/form-dialog'
import { Notice } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { isOff, MainsButton, MAINS_IS } from '../frame/mains'
import { Functions, HEALTHS, type FunctionName, type Health } from './item-fields'

const OUT = { mains: 'out' }

/** A part goes in for a look: from now on what is seen is about it, until the unit's own is back. */
export function FitDialog({ onClose }: { onClose: () => void }) {
  const { job, send, isBusy } = useBench()
  const choices = job.repairs.filter((r) => r.uses_item).map((r) => ({ id: r.id, label: `${r.takes} (${r.name.toLowerCase()})` }))
  const [repair, setRepair] = useState('')
  const [item, setItem] = useState('')
  const [health, setHealth] = useState<Health | ''>('')
  const [works, setWorks] = useState<FunctionName[]>([])
  const pick = (id: string) => {
    setRepair(id)
    const atHand = job.diagnosis.swaps.parts.find((p) => p.repair === id)
    if (!atHand) return
    setItem(atHand.item)
    setHealth(atHand.health as Health)
    setWorks(atHand.works as FunctionName[])
  }
  const fit = () => {
    if (!health) return
    const before = job.configuration.on_trial.filter((f) => f.repair !== repair).map(({ repair: r, item: i, health: h }) => ({ repair: r, item: i, health: h as Health }))
    send({ do: 'fit', changes: [...before, { repair, item: item.trim(), health, works }] }, `In it for trying: ${item.trim()}`)
    onClose()
  }
  return (
    <FormDialog
      title="Fit a part to try"
      note="Mains out, charge gone, strap on: static kills a bare pickup or board. What is seen from now on counts for the part that is in; nothing is forgotten when it goes back."
      act="It is in"
      isReady={repair !== '' && item.trim() !== '' && health !== '' && !isOff(OUT, job)}
      isBusy={isBusy}
      onSend={fit}
      onClose={onClose}
    >
      <Select label="What goes in?" choices={choices} value={repair} onChange={pick} />
      <TextField label="Its tag, or the donor’s" hint="A part of the shelf is taken from it. The same tag is the same part." value={item} maxLength={60} onChange={(e) => setItem(e.target.value)} />
      <Choice label="What is known of it?" choices={HEALTHS} value={health} onChange={(id) => setHealth(id as Health)} />
      {health === 'unknown' && <Functions value={works} onChange={setWorks} />}
      {isOff(OUT, job) && (
        <Notice tone="brass" title={`A part goes in with the mains out; it is ${MAINS_IS[job.power]}`}>
          <MainsButton to="out" className="mt-1" />
        </Notice>
      )}
    </FormDialog>
  )
}

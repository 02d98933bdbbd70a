import { useFormContext, useWatch } from 'react-hook-form'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { amount, one, text } from '@/lib/fields'
import { moneySign } from '@/lib/money'
import { ChoiceInput, FieldsDialog, SelectInput, TextInput } from '@/ui/form-dialog'
import { useBench } from '../frame/bench-context'
import { Functions, HEALTHS, type FunctionName, type Health } from './item-fields'

const PLACES = [
  { id: 'shelf', label: 'Here' },
  { id: 'donor', label: 'In a donor' },
  { id: 'transit', label: 'On its way' },
] as const
type Place = (typeof PLACES)[number]['id']

const { item, wait_days } = BOUNDS.NotePartAsk
const daysOf = (typed: string): number => Number(typed.replace(',', '.'))
const PART = z
  .object({ repair: one(), item: text(item), place: one<Place>(), health: one<Health>(), works: z.array(z.custom<FunctionName>()), price_cents: amount({ mayBeEmpty: true }), days: z.string() })
  .check(z.refine((p) => p.place !== 'transit' || (daysOf(p.days) > 0 && daysOf(p.days) <= wait_days.maximum), { path: ['days'], message: `A number of days from 1 to ${wait_days.maximum}.` }))

/** A part that this job can use: it changes what a step costs, how long it waits, and how sure it is. */
export function PartDialog({ repair = '', onClose }: { repair?: string; onClose: () => void }) {
  const { send, isBusy } = useBench()
  return (
    <FieldsDialog
      title="Note a part for this job"
      act="Note the part"
      schema={PART}
      start={{ repair, item: '', place: repair ? 'shelf' : '', health: '', works: [], price_cents: '', days: '' }}
      isBusy={isBusy}
      onSend={({ place, days, ...said }) => {
        const where = { wait_days: place === 'transit' ? daysOf(days) : 0, is_donor: place === 'donor' }
        send({ do: 'note_part', ...said, fails: [], ...where }, `Part noted: ${said.item || 'without a tag'}`)
        onClose()
      }}
      onClose={onClose}
    >
      <PartFields />
    </FieldsDialog>
  )
}

function PartFields() {
  const { job } = useBench()
  const { setValue } = useFormContext<{ works: FunctionName[] }>()
  const [place, health, works] = useWatch({ name: ['place', 'health', 'works'] }) as [Place | '', Health | '', FunctionName[]]
  return (
    <>
      <SelectInput name="repair" label="For which repair?" choices={job.repairs.filter((r) => r.uses_item).map((r) => ({ id: r.id, label: r.name }))} />
      <TextInput name="item" label="Its tag" maxLength={item.maxLength} />
      <ChoiceInput name="place" label="Where is it?" choices={PLACES} />
      {place === 'transit' && <TextInput name="days" label="Here in how many days?" inputMode="decimal" />}
      <ChoiceInput name="health" label="What is known of it?" choices={HEALTHS} />
      {health === 'unknown' && <Functions value={works} onChange={(now) => setValue('works', now)} />}
      <TextInput name="price_cents" label={`Its price to this job, ${moneySign()}`} hint="Empty if it costs nothing more." inputMode="decimal" />
    </>
  )
}

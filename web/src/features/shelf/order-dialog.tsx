import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { today } from '@/lib/dates'
import { amount, day, whole, words } from '@/lib/fields'
import { moneySign } from '@/lib/money'
import { FieldsDialog, TextInput } from '@/ui/form-dialog'
import { KIND, KindFields, noKind, type KindStart } from './kind-fields'
import { useOrder, useSuppliers } from './shelf-queries'

const { supplier } = BOUNDS.OrderIn
const ORDER = z.object({ ...KIND, supplier: words(supplier), packs: whole(), pack_size: whole(), pack_cents: amount(), ordered_on: day() })

/** An order, in packs. */
export function OrderDialog({ start = noKind, onClose }: { start?: KindStart; onClose: () => void }) {
  const order = useOrder()
  const known = useSuppliers().data ?? []
  return (
    <FieldsDialog
      title="Write an order down"
      note="How long this supplier takes follows from its past orders."
      act="Write the order down"
      schema={ORDER}
      start={{ ...start, supplier: '', packs: '1', pack_size: '1', pack_cents: '', ordered_on: today() }}
      error={order.error}
      isBusy={order.isPending}
      onSend={(said) => order.mutate(said, { onSuccess: onClose })}
      onClose={onClose}
    >
      <KindFields />
      <TextInput name="supplier" label="From whom" hint={known.length > 0 ? `Known: ${known.join(', ')}. Another name is a new supplier.` : undefined} list={known} maxLength={supplier.maxLength} />
      <div className="grid gap-3 sm:grid-cols-4">
        <TextInput name="packs" label="Packs" inputMode="numeric" />
        <TextInput name="pack_size" label="Pieces in a pack" inputMode="numeric" />
        <TextInput name="pack_cents" label={`Price of a pack, ${moneySign()}`} inputMode="decimal" />
        <TextInput name="ordered_on" label="Ordered on" type="date" />
      </div>
    </FieldsDialog>
  )
}

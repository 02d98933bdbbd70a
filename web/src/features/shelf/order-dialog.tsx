import { useState } from 'react'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { today } from '@/lib/dates'
import { amount, day, whole, words } from '@/lib/fields'
import { moneySign } from '@/lib/money'
import { FieldsDialog, TextInput } from '@/ui/form-dialog'
import { Notice } from '@/ui/panel'
import { KIND, KindFields, noKind, type KindStart } from './kind-fields'
import { useCodes, useOrder, useSuppliers } from './shelf-queries'

const { supplier } = BOUNDS.OrderIn
const ORDER = z.object({ ...KIND, supplier: words(supplier), packs: whole(), pack_size: whole(), pack_cents: amount(), ordered_on: day() })

const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase()

/** What an order names that nobody has named before, in words; "" if all of it is known, or nobody can tell. */
function newOf(said: z.infer<typeof ORDER>, suppliers: readonly string[] | undefined, codes: readonly { level: string; code: string }[] | undefined): string {
  const isNewCode = codes && !codes.some((c) => c.level === said.level && same(c.code, said.code))
  const isNewSupplier = suppliers && !suppliers.some((s) => same(s, said.supplier))
  return [...(isNewCode ? [`the code ${said.code.trim()}`] : []), ...(isNewSupplier ? [`${said.supplier.trim()} as a supplier`] : [])].join(', and ')
}

/** An order, in packs. */
export function OrderDialog({ start = noKind, onClose }: { start?: KindStart; onClose: () => void }) {
  const order = useOrder()
  const [knownSuppliers, knownCodes] = [useSuppliers(), useCodes()]
  const suppliers = knownSuppliers.data
  const [asked, setAsked] = useState('')
  const send = (said: z.infer<typeof ORDER>) => {
    const fresh = newOf(said, suppliers, knownCodes.data)
    if (fresh && fresh !== asked) setAsked(fresh)
    else order.mutate(said, { onSuccess: onClose })
  }
  return (
    <FieldsDialog
      title="Write an order down"
      note="How long this supplier takes follows from its past orders."
      act={asked ? 'It is new: write the order down' : 'Write the order down'}
      schema={ORDER}
      start={{ ...start, supplier: '', packs: '1', pack_size: '1', pack_cents: '', ordered_on: today() }}
      error={order.error}
      isBusy={order.isPending || knownSuppliers.isPending || knownCodes.isPending}
      onSend={send}
      onClose={onClose}
    >
      <KindFields />
      <TextInput name="supplier" label="From whom" list={suppliers ?? []} maxLength={supplier.maxLength} />
      <div className="grid gap-3 sm:grid-cols-4">
        <TextInput name="packs" label="Packs" inputMode="numeric" />
        <TextInput name="pack_size" label="Pieces in a pack" inputMode="numeric" />
        <TextInput name="pack_cents" label={`Price of a pack, ${moneySign()}`} inputMode="decimal" />
        <TextInput name="ordered_on" label="Ordered on" type="date" />
      </div>
      {asked && (
        <Notice tone="brass" title={`New here: ${asked}`} role="status">
          Not known here yet. Press again if it is right, or pick one that is.
        </Notice>
      )}
    </FieldsDialog>
  )
}

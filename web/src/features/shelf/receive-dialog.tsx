import { useNavigate } from 'react-router'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { amount, one, text, whole } from '@/lib/fields'
import { moneySign } from '@/lib/money'
import { ChoiceInput, FieldsDialog, TextInput } from '@/ui/form-dialog'
import { KIND, KindFields, noKind } from './kind-fields'
import { useReceive } from './shelf-queries'

const HEALTHS = [
  { id: 'new', label: 'New' },
  { id: 'proven', label: 'Proven in a working unit' },
  { id: 'unknown', label: 'Not known' },
] as const
const { place } = BOUNDS.ReceiveIn
const PARTS = z.object({ ...KIND, count: whole(), pack_size: whole(), pack_cents: amount({ mayBeEmpty: true }), health: one<(typeof HEALTHS)[number]['id']>(), place: text(place) })

/** Parts that come without an order: bought over the counter, found, given. The price of a piece follows from the pack. */
export function ReceiveDialog({ onClose }: { onClose: () => void }) {
  const receive = useReceive()
  const navigate = useNavigate()
  return (
    <FieldsDialog
      title="Put a part on the shelf"
      note="It gets a tag of its own. What was ordered comes by its order."
      act="Put it on the shelf"
      schema={PARTS}
      start={{ ...noKind, count: '1', pack_size: '1', pack_cents: '', health: 'new', place: '' }}
      error={receive.error}
      isBusy={receive.isPending}
      onSend={(said) => receive.mutate({ ...said, is_complete: false, lot: '' }, { onSuccess: (part) => void navigate(`/shelf/parts/${part.tag}`) })}
      onClose={onClose}
    >
      <KindFields />
      <div className="grid gap-3 sm:grid-cols-3">
        <TextInput name="count" label="How many pieces" inputMode="numeric" />
        <TextInput name="pack_size" label="Pieces in a pack" inputMode="numeric" />
        <TextInput name="pack_cents" label={`Price of a pack, ${moneySign()}`} inputMode="decimal" />
      </div>
      <ChoiceInput name="health" label="What is known of it?" choices={HEALTHS} />
      <TextInput name="place" label="Where it lies" maxLength={place.maxLength} />
    </FieldsDialog>
  )
}

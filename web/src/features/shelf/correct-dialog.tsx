import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import type { PartDetail } from '@/api/types'
import { amount, text, whole } from '@/lib/fields'
import { moneySign } from '@/lib/money'
import { FieldsDialog, TextInput } from '@/ui/form-dialog'
import { useCorrectPart } from './shelf-queries'

const CORRECTED = z.object({ count: whole(0), place: text(BOUNDS.ReceiveIn.place), lot: text(BOUNDS.ReceiveIn.lot), piece_cents: amount({ mayBeEmpty: true }) })

/** What is written of a part, put right: its trail keeps what stood there, and who changed it. */
export function CorrectDialog({ part, onClose }: { part: PartDetail; onClose: () => void }) {
  const correct = useCorrectPart()
  return (
    <FieldsDialog
      title={`Put ${part.tag} right`}
      note="What stood there stays on its trail."
      act="Save"
      schema={CORRECTED}
      start={{ count: String(part.count), place: part.place, lot: part.lot, piece_cents: (part.piece_cents / 100).toFixed(2) }}
      error={correct.error}
      isBusy={correct.isPending}
      onSend={(said) => correct.mutate({ tag: part.tag, ...changed(part, said) }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <TextInput name="count" label="How many are here" inputMode="numeric" />
      <TextInput name="place" label="Where they lie" maxLength={BOUNDS.ReceiveIn.place.maxLength} />
      <TextInput name="lot" label="Lot" maxLength={BOUNDS.ReceiveIn.lot.maxLength} />
      <TextInput name="piece_cents" label={`A piece costs, ${moneySign()}`} inputMode="decimal" />
    </FieldsDialog>
  )
}

type Said = z.output<typeof CORRECTED>
const changed = (part: PartDetail, said: Said): Partial<Said> => Object.fromEntries((Object.keys(said) as (keyof Said)[]).filter((k) => said[k] !== part[k]).map((k) => [k, said[k]]))

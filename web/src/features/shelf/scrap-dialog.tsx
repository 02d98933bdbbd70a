import { useMemo } from 'react'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { whole, words } from '@/lib/fields'
import { FieldsDialog, TextInput } from '@/ui/form-dialog'

interface Props {
  title: string
  /** How many there are; 1 asks for no number. */
  most: number
  error: Error | null
  isBusy: boolean
  onScrap: (count: number, why: string) => void
  onClose: () => void
}

const { why } = BOUNDS.ScrapIn

/** Something goes for good, with a reason. */
export function ScrapDialog({ title, most, error, isBusy, onScrap, onClose }: Props) {
  const schema = useMemo(() => z.object({ count: whole(1, most), why: words(why) }), [most])
  return (
    <FieldsDialog
      title={title}
      note="Electronics go where your local rules send them."
      act="Throw away"
      schema={schema}
      start={{ count: '1', why: '' }}
      error={error}
      isBusy={isBusy}
      onSend={(said) => onScrap(said.count, said.why)}
      onClose={onClose}
    >
      {most > 1 && <TextInput name="count" label={`How many of ${most}`} inputMode="numeric" />}
      <TextInput name="why" label="Why" maxLength={why.maxLength} />
    </FieldsDialog>
  )
}

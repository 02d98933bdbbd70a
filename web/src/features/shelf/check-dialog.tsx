import type { UseMutationResult } from '@tanstack/react-query'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { seen, text } from '@/lib/fields'
import { functionWord, WORKS_OR_FAILS } from '@/lib/words'
import { ChoiceInput, FieldsDialog, TextInput } from '@/ui/form-dialog'

interface Props {
  title: string
  functions: readonly string[]
  check: Pick<UseMutationResult<unknown, Error, never>, 'error' | 'isPending'> & { mutate: (body: { seen: Record<string, boolean>; unit: string }, then: { onSuccess: () => void }) => void }
  onClose: () => void
}

const { unit } = BOUNDS.ChecksIn
const CHECKS = z.object({ seen: seen().check(z.refine((told) => Object.keys(told).length > 0)), unit: text(unit) })

/** What a part or donor was seen to do, and in which unit. What nobody tried stays untested. */
export function CheckDialog({ title, functions, check, onClose }: Props) {
  return (
    <FieldsDialog
      title={title}
      note="Only what was seen: a swap clears a part only as far as it is known good in that function."
      act="Write it down"
      schema={CHECKS}
      start={{ seen: {}, unit: '' }}
      error={check.error}
      isBusy={check.isPending}
      onSend={(said) => check.mutate(said, { onSuccess: onClose })}
      onClose={onClose}
    >
      {functions.map((f) => (
        <ChoiceInput key={f} name={`seen.${f}`} inline label={functionWord(f)} choices={WORKS_OR_FAILS} />
      ))}
      <TextInput name="unit" label="In which unit" hint="A tag, or what it was tried in." maxLength={unit.maxLength} />
    </FieldsDialog>
  )
}

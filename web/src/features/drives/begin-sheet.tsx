import { useWatch } from 'react-hook-form'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { useSheets } from '@/api/sheets'
import type { SheetDetail } from '@/api/types'
import { text, words } from '@/lib/fields'
import { discClass } from '@/lib/words'
import { ChecksInput, ChoiceInput, FieldsDialog, SelectInput, TextInput } from '@/ui/form-dialog'
import { CLASSES } from './document'
import { useBeginSheet } from './drive-queries'

const { maker, console: unit, revision, variant } = BOUNDS.BeginningIn
const FAMILIES = [
  { id: 'tray', label: 'A tray slides out' },
  { id: 'slot', label: 'A slot draws it in' },
  { id: 'lid', label: 'A lid is lifted' },
]
type Family = '' | 'tray' | 'slot' | 'lid'

const BEGUN = z
  .object({ maker: words(maker), console: words(unit), revision: text(revision), variant: text(variant), like: z.string(), family: z.string(), classes: z.array(z.string()) })
  .check(z.refine((s) => s.like !== '' || (s.family !== '' && s.classes.length > 0)))

/** A drive that has no sheet: like another, or bare by how the disc goes in and what it plays. */
export function BeginSheet({ like = '', onMade, onClose }: { like?: string; onMade: (sheet: SheetDetail) => void; onClose: () => void }) {
  const begin = useBeginSheet()
  return (
    <FieldsDialog
      title="A drive that has no sheet yet"
      note="What is on the unit is enough. Everything else counts as not known until the bench has seen it."
      act="Begin its sheet"
      schema={BEGUN}
      start={{ maker: '', console: '', revision: '', variant: '', like, family: '', classes: [] }}
      error={begin.error}
      isBusy={begin.isPending}
      onSend={(s) => begin.mutate({ ...s, family: (s.like ? '' : s.family) as Family, classes: s.like ? [] : s.classes }, { onSuccess: onMade })}
      onClose={onClose}
    >
      <div className="grid gap-4 sm:grid-cols-2">
        <TextInput name="maker" label="Maker" maxLength={maker.maxLength} />
        <TextInput name="console" label="Console" maxLength={unit.maxLength} />
        <TextInput name="revision" label="Revision, if it says one" maxLength={revision.maxLength} />
        <TextInput name="variant" label="Drive, if it can be read" hint="Left empty, it gets a name to go on with." maxLength={variant.maxLength} />
      </div>
      <Kind />
    </FieldsDialog>
  )
}

function Kind() {
  const sheets = useSheets().data ?? []
  const like = useWatch({ name: 'like' }) as string
  const own = (
    <>
      <ChoiceInput name="family" label="How does a disc go in?" choices={FAMILIES} />
      <ChecksInput name="classes" label="Which discs does it play?" choices={CLASSES.map((c) => ({ id: c, label: discClass(c) }))} />
    </>
  )
  return (
    <>
      {sheets.length > 0 && (
        <SelectInput
          name="like"
          label="Like one that is here? Every value is copied then, and marked as not seen"
          empty="Like none"
          choices={sheets.map((s) => ({ id: s.drive.variant, label: `${s.drive.maker} ${s.drive.console} ${s.drive.revision} (${s.drive.variant})` }))}
        />
      )}
      {like === '' && own}
    </>
  )
}

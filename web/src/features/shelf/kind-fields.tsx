import { useWatch } from 'react-hook-form'
import { BOUNDS } from '@/api/bounds'
import { useSheetForm } from '@/api/sheets'
import { one, text, words } from '@/lib/fields'
import { SelectInput, TextInput } from '@/ui/form-dialog'
import { useCodes } from './shelf-queries'

const { code, name } = BOUNDS.ReceiveIn
/** Which kind of part, as a form asks it. */
export const KIND = { level: one(), code: words(code), name: text(name) }
export type KindStart = typeof noKind
export const noKind = { level: '', code: '', name: '' }

/** Which kind of part: its level and the shop's code. */
export function KindFields() {
  const form = useSheetForm()
  const level: unknown = useWatch({ name: 'level' })
  const codes = useCodes().data?.filter((c) => c.level === level).map((c) => c.code) ?? [] // prettier-ignore
  return (
    <div className="grid gap-3 sm:grid-cols-3">
      <SelectInput name="level" label="Level" choices={form.data?.levels.map((l) => ({ id: l.id, label: l.name })) ?? []} />
      <TextInput name="code" label="Code" hint="As on the drive sheet." list={codes} maxLength={code.maxLength} />
      <TextInput name="name" label="Name" hint="Empty: level and code." maxLength={name.maxLength} />
    </div>
  )
}

import { useSheetForm } from '@/api/sheets'
import { TextField } from '@/ui/field'

export interface KindDraft {
  level: string
  code: string
  name: string
}
export const noKind: KindDraft = { level: '', code: '', name: '' }

/** Which kind of part: its level and the shop's code. */
export function KindFields({ kind, onChange }: { kind: KindDraft; onChange: (kind: KindDraft) => void }) {
  const form = useSheetForm()
  return (
    <div className="grid gap-3 sm:grid-cols-3">
      <label className="block">
        <span className="mb-1 block font-semibold">Level</span>
        <select className="min-h-11 w-full rounded-lg border border-ink/55 bg-paper px-3" value={kind.level} onChange={(e) => onChange({ ...kind, level: e.target.value })}>
          <option value="">Choose…</option>
          {form.data?.levels.map((l) => (
            <option key={l.id} value={l.id}>
              {l.name}
            </option>
          ))}
        </select>
      </label>
      <TextField label="Code" hint="As on the drive sheet." value={kind.code} maxLength={60} onChange={(e) => onChange({ ...kind, code: e.target.value })} />
      <TextField label="Name" hint="Empty: level and code." value={kind.name} maxLength={120} onChange={(e) => onChange({ ...kind, name: e.target.value })} />
    </div>
  )
}

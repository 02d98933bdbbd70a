import type { SheetForm } from '@/api/types'
import { Panel } from '@/ui/panel'
import type { SheetDocument } from './document'
import { SourceFields } from './source-fields'

interface Props {
  document: SheetDocument
  form: SheetForm
  onChange: (document: SheetDocument) => void
}

/** What the eye can see of this drive: the identification key tells variants apart by it. What is not known is left out. */
export function LooksEditor({ document, form, onChange }: Props) {
  const set = (feature: string, value: string) => {
    const rest = Object.entries(document.looks).filter(([f]) => f !== feature)
    onChange({ ...document, looks: Object.fromEntries(value ? [...rest, [feature, value]] : rest) })
  }
  return (
    <Panel title="What the eye can see" aside="the key tells variants apart by it">
      <div className="grid gap-3 sm:grid-cols-2">
        {form.features.map((f) => (
          <label key={f.id} className="block">
            <span className="mb-1 block">{f.ask}</span>
            <select className="min-h-11 w-full rounded-lg border border-ink/55 bg-paper px-3" value={document.looks[f.id] ?? ''} onChange={(e) => set(f.id, e.target.value)}>
              <option value="">not known</option>
              {f.values.map((v) => (
                <option key={v.id} value={v.id}>
                  {v.label}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
      <div className="mt-3">
        <SourceFields label="What was seen" fact="looks" document={document} form={form} onChange={onChange} />
      </div>
    </Panel>
  )
}

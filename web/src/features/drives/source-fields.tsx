import { useId } from 'react'
import type { SheetForm } from '@/api/types'
import type { SheetDocument, SheetSource } from './document'

const BOX = 'min-h-11 rounded-lg border border-ink/55 bg-paper px-2.5'
const SURE = [
  ['sure', 'sure'],
  ['fair', 'fair'],
  ['doubtful', 'doubtful'],
] as const

interface Props {
  label: string
  fact: string
  document: SheetDocument
  form: SheetForm
  onChange: (document: SheetDocument) => void
}

/** Where a fact comes from, and how sure it is. */
export function SourceFields({ label, fact, document, form, onChange }: Props) {
  const source = document.sources[fact] ?? document.sources['*'] ?? { origin: 'shop', confidence: 'fair', said: '' }
  const id = useId()
  const set = (more: Partial<SheetSource>) => onChange({ ...document, sources: { ...document.sources, [fact]: { ...source, said: source.said ?? '', ...more } } })
  return (
    <div role="group" aria-labelledby={id} className="flex flex-wrap items-center gap-2">
      <span id={id} className="text-quiet">
        {label}: from
      </span>
      <select className={BOX} aria-label="From" value={source.origin} onChange={(e) => set({ origin: e.target.value })}>
        {Object.entries(form.origins).map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
      <select className={BOX} aria-label="How sure" value={source.confidence} onChange={(e) => set({ confidence: e.target.value })}>
        {SURE.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
      <input className={BOX} aria-label="Whose, how often" placeholder="whose, how often" maxLength={120} value={source.said ?? ''} onChange={(e) => set({ said: e.target.value })} />
    </div>
  )
}

import { useState } from 'react'
import { BOUNDS } from '@/api/bounds'
import type { PartDetail } from '@/api/types'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { useSize } from './shelf-queries'

const FIELD = 'min-h-11 w-28 rounded-lg border border-ink/55 bg-paper px-3 figures'

/** How long around a belt is when it lies free, and how thick: the belt calculator finds it on the shelf by these. */
export function SizeForm({ part }: { part: PartDetail }) {
  const say = useSize(part.tag)
  const [around, setAround] = useState(part.around_mm === null ? '' : String(part.around_mm))
  const [section, setSection] = useState(part.section_mm === null ? '' : String(part.section_mm))
  const told = { around_mm: within(around, BOUNDS.SizeIn.around_mm), section_mm: within(section, BOUNDS.SizeIn.section_mm) }
  const isReady = told.around_mm !== null && told.section_mm !== null
  return (
    <form
      className="mt-3 flex flex-wrap items-end gap-2 border-t border-line pt-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (told.around_mm !== null && told.section_mm !== null) say.mutate({ around_mm: told.around_mm, section_mm: told.section_mm })
      }}
    >
      <TextField label="Around, lying free, in mm" inputMode="decimal" className={FIELD} value={around} error={around && told.around_mm === null ? 'From 20 to 600 mm.' : undefined} onChange={(e) => setAround(e.target.value)} />
      <TextField label="Section, in mm" inputMode="decimal" className={FIELD} value={section} error={section && told.section_mm === null ? 'From 0.5 to 6 mm.' : undefined} onChange={(e) => setSection(e.target.value)} />
      <Button type="submit" disabled={!isReady || say.isPending}>
        Say its size
      </Button>
      {say.error && (
        <span role="alert" className="text-danger">
          {say.error.message}
        </span>
      )}
    </form>
  )
}

const within = (text: string, bounds: { minimum: number; maximum: number }): number | null => {
  const value = Number(text.replace(',', '.'))
  return text.trim() !== '' && value >= bounds.minimum && value <= bounds.maximum ? value : null
}

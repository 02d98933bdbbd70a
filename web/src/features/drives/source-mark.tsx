import type { SheetForm } from '@/api/types'
import { Chip } from '@/ui/panel'
import type { SheetSource } from './document'

/** Where a value comes from, in words; doubt is said, not only coloured. */
export function SourceMark({ source, form }: { source: SheetSource; form: SheetForm }) {
  return (
    <span className="text-quiet">
      {form.origins[source.origin] ?? source.origin}
      {source.said && `, ${source.said}`}
      {source.confidence === 'doubtful' && (
        <Chip tone="brass" className="ml-1.5">
          doubtful
        </Chip>
      )}
    </span>
  )
}

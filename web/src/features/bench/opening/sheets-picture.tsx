import { Picture } from '@/ui/picture'
import type { MatStep } from './mat-queries'

/** How a step looked to whoever wrote it into the sheet. */
export function SheetsPicture({ step }: { step: MatStep }) {
  if (!step.picture) return null
  return (
    <figure className="mt-2 max-w-[26rem]">
      <Picture key={step.picture} hash={step.picture} says={`${step.name}, as the sheet shows it`} className="w-full" />
      <figcaption className="text-tiny text-quiet">As the sheet shows it</figcaption>
    </figure>
  )
}

import { Link } from 'react-router'
import type { Move } from '@/api/types'
import { Button } from '@/ui/button'
import { Chip } from '@/ui/panel'
import { useBench } from './bench-context'

/** What the drive's sheet says of what is at hand, with the way to it; that it should say something and does not; and at a step, what measures it. */
export function SheetSays({ sheet, atStep = false }: { sheet: Move['sheet']; atStep?: boolean }) {
  const { job, mayWork, measure } = useBench()
  if (sheet.said.length === 0 && !sheet.lacks) return null
  const link = (
    <Link to={`/drives/${job.drive.variant}`} className="inline-flex min-h-11 items-center underline underline-offset-2">
      sheet of {job.drive.variant}
    </Link>
  )
  if (sheet.lacks)
    return (
      <p className="mt-1.5 rounded-md bg-brass-soft px-2.5 py-0.5">
        The {link} has no value for this yet: without one no band can be told. Measured on a sound unit, write it there.
      </p>
    )
  return (
    <div className="mt-1.5 flex flex-wrap items-center gap-x-4 rounded-md border border-line bg-mat/50 px-2.5">
      <ul className="py-1.5">
        {sheet.said.map((s) => (
          <li key={s.text}>
            <b>{s.text}</b> {!s.is_confirmed && <Chip tone="brass">not confirmed</Chip>}
          </li>
        ))}
      </ul>
      <span className="text-quiet">{link}</span>
      {atStep && mayWork && (
        <Button className="my-1.5" hotkey="M" onClick={() => measure('')}>
          Measure
        </Button>
      )}
    </div>
  )
}

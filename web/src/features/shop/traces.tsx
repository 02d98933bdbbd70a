import type { Trace } from '@/api/types'
import { dayOf, timeOf } from '@/lib/dates'
import { Panel } from '@/ui/panel'

interface Props {
  traces: readonly Trace[]
  /** What a change is of, in words. */
  name: (trace: Trace) => string
  /** A value in words. */
  value: (field: string, value: unknown) => string
}

/** Who changed what, from what, to what: newest first. */
export function Traces({ traces, name, value }: Props) {
  return (
    <Panel title="What was changed" aside={traces.length === 0 ? 'nothing yet' : undefined}>
      <ul className="divide-y divide-line">
        {traces.map((t) => (
          <li key={`${t.at}-${t.about}-${t.field}`} className="grid gap-x-4 py-1.5 md:grid-cols-[minmax(0,1fr)_auto]">
            <span>
              <span className="font-semibold">{name(t)}</span> {value(t.field, t.now)}
              {t.was !== null && t.was !== '' && <span className="text-quiet"> (was {value(t.field, t.was)})</span>}
            </span>
            <span className="text-tiny text-quiet">
              {t.by}, {dayOf(t.at)} <span className="figures">{timeOf(t.at)}</span>
            </span>
          </li>
        ))}
      </ul>
    </Panel>
  )
}

import { useState } from 'react'
import * as z from 'zod/mini'
import type { components } from '@/api/schema'
import { dayOf } from '@/lib/dates'
import { day } from '@/lib/fields'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { FieldsDialog, TextInput } from '@/ui/form-dialog'
import { Panel } from '@/ui/panel'
import { useCorrectDates, usePastOrders } from './shelf-queries'

type PastOrder = components['schemas']['PastOrderView']

/** The orders that came last: their days are what the next one is expected by, so a mistyped year is put right here. */
export function PastOrders({ may }: { may: boolean }) {
  const past = usePastOrders()
  return (
    <Asked of={past} what="the orders that came">
      {(found) =>
        found.length > 0 && (
          <Panel title="Came last" aside="what the next ones are expected by" level={3}>
            <ul className="divide-y divide-line">
              {found.map((o) => (
                <PastRow key={o.tag} order={o} may={may} />
              ))}
            </ul>
            <a className="mt-2 inline-flex min-h-11 items-center underline underline-offset-2" href="/api/shelf/orders.csv" download>
              Save every order there was (CSV)
            </a>
          </Panel>
        )
      }
    </Asked>
  )
}

function PastRow({ order: o, may }: { order: PastOrder; may: boolean }) {
  const [isOpen, setOpen] = useState(false)
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-1.5">
      <span className="min-w-0 flex-1">
        <b className="figures">{o.tag}</b> {o.count} × {o.name}
        <span className="block text-tiny text-quiet">
          {o.supplier}, ordered {dayOf(o.ordered_on)}, here {dayOf(o.arrived_on)}
        </span>
      </span>
      {may && (
        <Button kind="quiet" onClick={() => setOpen(true)}>
          Dates wrong
        </Button>
      )}
      {isOpen && <DatesDialog tag={o.tag} orderedOn={o.ordered_on} arrivedOn={o.arrived_on} onClose={() => setOpen(false)} />}
    </li>
  )
}

interface DatesProps {
  tag: string
  orderedOn: string
  /** Null while it is on its way. */
  arrivedOn: string | null
  onClose: () => void
}

const DATES = z.object({ ordered_on: day(), arrived_on: z.string() })

/** A date that was mistyped teaches a wrong wait for good, until it is put right. */
export function DatesDialog({ tag, orderedOn, arrivedOn, onClose }: DatesProps) {
  const correct = useCorrectDates(tag)
  return (
    <FieldsDialog
      title={`The dates of ${tag}`}
      note="What stood there before is kept in its trail."
      act="Put the dates right"
      schema={DATES}
      start={{ ordered_on: orderedOn, arrived_on: arrivedOn ?? '' }}
      error={correct.error}
      isBusy={correct.isPending}
      onSend={(said) => correct.mutate({ ordered_on: said.ordered_on, arrived_on: said.arrived_on || null }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <TextInput name="ordered_on" label="Ordered on" type="date" />
      {arrivedOn !== null && <TextInput name="arrived_on" label="Here on" type="date" />}
    </FieldsDialog>
  )
}

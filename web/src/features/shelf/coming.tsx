import { useState } from 'react'
import { useNavigate } from 'react-router'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { useMay } from '@/api/session'
import type { Order } from '@/api/types'
import { dayOf, today } from '@/lib/dates'
import { day, text, whole, words } from '@/lib/fields'
import { money } from '@/lib/money'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { FieldsDialog, TextInput } from '@/ui/form-dialog'
import { Chip, Notice, Panel } from '@/ui/panel'
import { OrderDialog } from './order-dialog'
import { DatesDialog, PastOrders } from './past-orders'
import { ShelfPage } from './shelf-page'
import { useArrive, useCancelOrder, useOrders } from './shelf-queries'

/** What is ordered, each with when it is expected: half of such orders, and nine in ten. */
export function ShelfComing() {
  const orders = useOrders()
  const may = useMay('shelf')
  const [isOrdering, setOrdering] = useState(false)
  return (
    <ShelfPage lead="What is ordered, with when it is expected by how long each supplier took before." actions={may && <Button onClick={() => setOrdering(true)}>Write an order down</Button>}>
      <Asked of={orders} what="the orders">
        {(found) => {
          if (found.length === 0) return <Notice title="Nothing is on its way">An order that is written down here counts in the advice: a part that comes is worth waiting for, or not.</Notice>
          const span = { past: Math.max(...found.map((o) => o.waited_days), 1), ahead: Math.max(...found.map((o) => o.most_days), 1) }
          return (
            <Panel>
              <Scale span={span} />
              <ul className="divide-y divide-line">
                {found.map((o) => (
                  <OrderRow key={o.tag} order={o} span={span} may={may} />
                ))}
              </ul>
            </Panel>
          )
        }}
      </Asked>
      <PastOrders may={may} />
      {isOrdering && <OrderDialog onClose={() => setOrdering(false)} />}
    </ShelfPage>
  )
}

const inDays = (days: number): string => (days < 1 ? 'within a day' : `in ${Math.round(days)} ${Math.round(days) === 1 ? 'day' : 'days'}`)

/** The days that all bars of the list span: from the oldest order to the last that is expected. */
interface Span {
  past: number
  ahead: number
}

/** Where a moment stands on the scale, in percent; days from today. */
const at = (days: number, { past, ahead }: Span): number => (100 * (past + days)) / (past + ahead)
const ROW = 'grid items-center gap-x-4 gap-y-1 md:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)_23rem]'

/** What the bars are read by: the first day, today, and the last. */
function Scale({ span }: { span: Span }) {
  return (
    <div aria-hidden="true" className={`${ROW} text-tiny text-quiet max-md:hidden`}>
      <span />
      <span className="relative block h-5">
        <span className="absolute left-0">{Math.round(span.past)} days ago</span>
        <span className="absolute -translate-x-1/2 bg-paper px-1 font-semibold text-ink" style={{ left: `${Math.min(75, Math.max(25, at(0, span)))}%` }}>
          today
        </span>
        <span className="absolute right-0">{inDays(span.ahead)}</span>
      </span>
    </div>
  )
}

/** From the day it was ordered to where nine in ten are here; today is the line through all of them. */
function Bar({ order: o, span }: { order: Order; span: Span }) {
  return (
    <span className="relative mb-1.5 block h-4 rounded bg-mat" aria-hidden="true">
      <span className="absolute inset-y-1.5 rounded bg-ink/35" style={{ left: `${at(-o.waited_days, span)}%`, right: `${100 - at(0, span)}%` }} />
      <span className="absolute inset-y-0 rounded-r bg-brass/35" style={{ left: `${at(0, span)}%`, right: `${100 - at(o.most_days, span)}%` }} />
      <span className="absolute inset-y-0 w-1 bg-brass" style={{ left: `${at(o.half_days, span)}%` }} />
      <span className="absolute -inset-y-1 w-0.5 bg-ink" style={{ left: `${at(0, span)}%` }} />
    </span>
  )
}

function OrderRow({ order: o, span, may }: { order: Order; span: Span; may: boolean }) {
  const [open, setOpen] = useState<'arrive' | 'cancel' | 'dates' | null>(null)
  return (
    <li className={`${ROW} py-2.5`}>
      <span>
        <b className="figures">{o.tag}</b> {o.count} × {o.name} {o.came > 0 && <Chip>{o.came} came already</Chip>}
        <span className="block text-tiny text-quiet">
          {o.supplier}, ordered {dayOf(o.ordered_on)}, {Math.round(o.waited_days)} days ago · {money(o.piece_cents)} a piece
        </span>
      </span>
      <span>
        <Bar order={o} span={span} />
        <span className="block text-tiny">
          half of such orders are here <b>{inDays(o.half_days)}</b>, nine in ten <b>{inDays(o.most_days)}</b>
          <span className="text-quiet"> ({o.past === 0 ? 'a supplier without a past here' : `${o.past} past orders`})</span>
        </span>
      </span>
      {may && (
        <span className="flex flex-wrap justify-end gap-1.5">
          <Button onClick={() => setOpen('arrive')}>It is here</Button>
          <Button kind="quiet" onClick={() => setOpen('dates')}>
            Dates wrong
          </Button>
          <Button kind="quiet" onClick={() => setOpen('cancel')}>
            Will not come
          </Button>
        </span>
      )}
      {open === 'arrive' && <ArriveDialog order={o} onClose={() => setOpen(null)} />}
      {open === 'dates' && <DatesDialog tag={o.tag} orderedOn={o.ordered_on} arrivedOn={null} onClose={() => setOpen(null)} />}
      {open === 'cancel' && <CancelDialog order={o} onClose={() => setOpen(null)} />}
    </li>
  )
}

const ARRIVED = z.object({ count: whole(), on: day(), place: text(BOUNDS.ArriveIn.place) })

function ArriveDialog({ order, onClose }: { order: Order; onClose: () => void }) {
  const arrive = useArrive(order.tag)
  const navigate = useNavigate()
  return (
    <FieldsDialog
      title={`${order.tag} is here`}
      note={`${order.count} × ${order.name}. Count them before you put them away: what is missing stays on its way.`}
      act="Put them on the shelf"
      schema={ARRIVED}
      start={{ count: String(order.count), on: today(), place: '' }}
      error={arrive.error}
      isBusy={arrive.isPending}
      onSend={(said) => arrive.mutate(said, { onSuccess: (part) => void navigate(`/shelf/parts/${part.tag}`) })}
      onClose={onClose}
    >
      <TextInput name="count" label="How many came" inputMode="numeric" />
      <TextInput name="on" label="Arrived on" type="date" />
      <TextInput name="place" label="Where it lies" maxLength={BOUNDS.ArriveIn.place.maxLength} />
    </FieldsDialog>
  )
}

const CANCELLED = z.object({ why: words(BOUNDS.CancelIn.why) })

function CancelDialog({ order, onClose }: { order: Order; onClose: () => void }) {
  const cancel = useCancelOrder(order.tag)
  return (
    <FieldsDialog
      title={`${order.tag} will not come`}
      act="Write it down"
      schema={CANCELLED}
      start={{ why: '' }}
      error={cancel.error}
      isBusy={cancel.isPending}
      onSend={(said) => cancel.mutate(said, { onSuccess: onClose })}
      onClose={onClose}
    >
      <TextInput name="why" label="Why" maxLength={BOUNDS.CancelIn.why.maxLength} />
    </FieldsDialog>
  )
}

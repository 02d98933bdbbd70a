import { useState } from 'react'
import { centsOf } from '@/lib/money'
import { wholeOf } from '@/lib/whole'
import { today } from '@/lib/dates'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'
import { KindFields, noKind, type KindDraft } from './kind-fields'
import { useOrder } from './shelf-queries'

/** An order, in packs. */
export function OrderDialog({ start = noKind, onClose }: { start?: KindDraft; onClose: () => void }) {
  const order = useOrder()
  const [kind, setKind] = useState(start)
  const [supplier, setSupplier] = useState('')
  const [packs, setPacks] = useState('1')
  const [size, setSize] = useState('1')
  const [price, setPrice] = useState('')
  const [on, setOn] = useState(today())
  const cents = centsOf(price)
  const [n, pieces] = [wholeOf(packs), wholeOf(size)]
  const isReady = kind.level !== '' && kind.code.trim() !== '' && supplier.trim() !== '' && n !== null && pieces !== null && cents !== null && on !== ''
  const save = () => {
    if (!isReady) return
    order.mutate(
      { supplier: supplier.trim(), level: kind.level, code: kind.code.trim(), name: kind.name.trim(), packs: n, pack_size: pieces, pack_cents: cents, ordered_on: on },
      { onSuccess: onClose },
    )
  }
  return (
    <Dialog title="Write an order down" open onClose={onClose} note="How long this supplier takes follows from its past orders.">
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <KindFields kind={kind} onChange={setKind} />
        <TextField label="From whom" value={supplier} maxLength={80} onChange={(e) => setSupplier(e.target.value)} />
        <div className="grid gap-3 sm:grid-cols-4">
          <TextField label="Packs" inputMode="numeric" value={packs} error={n === null ? 'From 1.' : undefined} onChange={(e) => setPacks(e.target.value)} />
          <TextField label="Pieces in a pack" inputMode="numeric" value={size} error={pieces === null ? 'From 1.' : undefined} onChange={(e) => setSize(e.target.value)} />
          <TextField label="Price of a pack, €" inputMode="decimal" value={price} error={price && cents === null ? 'Like 24 or 24.50.' : undefined} onChange={(e) => setPrice(e.target.value)} />
          <TextField label="Ordered on" type="date" value={on} onChange={(e) => setOn(e.target.value)} />
        </div>
        {order.error && (
          <Notice tone="danger" title="Not written" role="alert">
            {order.error.message}
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={!isReady || order.isPending}>
          {order.isPending ? 'Writing…' : 'Write the order down'}
        </Button>
      </form>
    </Dialog>
  )
}

import { useState } from 'react'
import { useNavigate } from 'react-router'
import { centsOf } from '@/lib/money'
import { wholeOf } from '@/lib/whole'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Choice, TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'
import { KindFields, noKind } from './kind-fields'
import { useReceive } from './shelf-queries'

const HEALTHS = [
  { id: 'new', label: 'New' },
  { id: 'proven', label: 'Proven in a working unit' },
  { id: 'unknown', label: 'Not known' },
]
/** Parts that come without an order: bought over the counter, found, given. The price of a piece follows from the pack. */
export function ReceiveDialog({ onClose }: { onClose: () => void }) {
  const receive = useReceive()
  const navigate = useNavigate()
  const [kind, setKind] = useState(noKind)
  const [count, setCount] = useState('1')
  const [packSize, setPackSize] = useState('1')
  const [price, setPrice] = useState('')
  const [health, setHealth] = useState('new')
  const [place, setPlace] = useState('')
  const cents = price.trim() === '' ? 0 : centsOf(price)
  const [n, size] = [wholeOf(count), wholeOf(packSize)]
  const isReady = kind.level !== '' && kind.code.trim() !== '' && n !== null && size !== null && cents !== null
  const save = () => {
    if (!isReady) return
    receive.mutate(
      { level: kind.level, code: kind.code.trim(), name: kind.name.trim(), count: n, pack_size: size, pack_cents: cents, health: health as 'new', is_complete: false, lot: '', place: place.trim() },
      { onSuccess: (part) => void navigate(`/shelf/parts/${part.tag}`) },
    )
  }
  return (
    <Dialog title="Put a part on the shelf" open onClose={onClose} note="It gets a tag of its own. What was ordered comes by its order.">
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <KindFields kind={kind} onChange={setKind} />
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField label="How many pieces" inputMode="numeric" value={count} error={n === null ? 'A whole number from 1.' : undefined} onChange={(e) => setCount(e.target.value)} />
          <TextField label="Pieces in a pack" inputMode="numeric" value={packSize} error={size === null ? 'A whole number from 1.' : undefined} onChange={(e) => setPackSize(e.target.value)} />
          <TextField label="Price of a pack, in euro" inputMode="decimal" value={price} error={cents === null ? 'An amount like 24 or 24.50.' : undefined} onChange={(e) => setPrice(e.target.value)} />
        </div>
        <Choice label="What is known of it?" choices={HEALTHS} value={health} onChange={setHealth} />
        <TextField label="Where it lies" value={place} maxLength={60} onChange={(e) => setPlace(e.target.value)} />
        {receive.error && (
          <Notice tone="danger" title="Not written" role="alert">
            {receive.error.message}
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={!isReady || receive.isPending}>
          {receive.isPending ? 'Writing…' : 'Put it on the shelf'}
        </Button>
      </form>
    </Dialog>
  )
}

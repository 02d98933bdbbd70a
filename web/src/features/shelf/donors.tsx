import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useSheets } from '@/api/sheets'
import { useMay } from '@/api/session'
import { centsOf } from '@/lib/money'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'
import { ShelfPage } from './shelf-page'
import { useAddDonor, useDonors } from './shelf-queries'

/** Units and drives that are kept for parts. */
export function ShelfDonors() {
  const donors = useDonors()
  const may = useMay('shelf')
  const [isAdding, setAdding] = useState(false)
  return (
    <ShelfPage lead="Units and drives kept for parts: what is left in each, and what it was seen to do." actions={may && <Button onClick={() => setAdding(true)}>Keep a donor</Button>}>
      <Asked of={donors} what="the donors">
        {(found) =>
          found.length === 0 ? (
            <Notice title="No donor yet">A unit that is not worth repairing can be kept for parts: its good functions are worth more than its name.</Notice>
          ) : (
            <ul className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
              {found.map((d) => (
                <li key={d.tag}>
                  <Link to={`/shelf/donors/${d.tag}`} className="block h-full rounded-xl border border-line bg-paper p-3.5 hover:border-ink">
                    <span className="flex items-baseline justify-between">
                      <b className="figures text-[1.15rem]">{d.tag}</b>
                      <span className="figures">{d.variant}</span>
                    </span>
                    <span className="block">{d.origin || 'nobody wrote where from'}</span>
                    <span className="block text-tiny text-quiet">
                      {d.place || 'no place'} · {d.left} of {d.of} pieces left
                    </span>
                    <span aria-hidden="true" className="mt-1.5 flex gap-0.5">
                      {Array.from({ length: d.of }, (_, n) => (
                        <span key={n} className={`h-2 flex-1 rounded-sm ${n < d.left ? 'bg-ink' : 'bg-line'}`} />
                      ))}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          )
        }
      </Asked>
      {isAdding && <AddDonor onClose={() => setAdding(false)} />}
    </ShelfPage>
  )
}

function AddDonor({ onClose }: { onClose: () => void }) {
  const add = useAddDonor()
  const variants = useSheets()
  const navigate = useNavigate()
  const [variant, setVariant] = useState('')
  const [origin, setOrigin] = useState('')
  const [place, setPlace] = useState('')
  const [price, setPrice] = useState('')
  const cents = price.trim() === '' ? 0 : centsOf(price)
  return (
    <Dialog title="Keep a donor" open onClose={onClose}>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (variant && cents !== null)
            add.mutate({ variant, bought_cents: cents, origin: origin.trim(), place: place.trim() }, { onSuccess: (donor) => void navigate(`/shelf/donors/${donor.tag}`) })
        }}
      >
        <label className="block">
          <span className="mb-1 block font-semibold">Which drive is in it?</span>
          <select className="min-h-11 w-full rounded-lg border border-ink/55 bg-paper px-3" value={variant} onChange={(e) => setVariant(e.target.value)}>
            <option value="">Choose…</option>
            {variants.data?.map((s) => (
              <option key={s.id} value={s.drive.variant}>
                {s.drive.variant}: {s.drive.maker} {s.drive.console}, revision {s.drive.revision}
              </option>
            ))}
          </select>
        </label>
        <TextField label="Where it comes from, what was wrong" value={origin} maxLength={120} onChange={(e) => setOrigin(e.target.value)} />
        <div className="grid gap-3 sm:grid-cols-2">
          <TextField label="Where it lies" value={place} maxLength={60} onChange={(e) => setPlace(e.target.value)} />
          <TextField label="Paid, in euro" inputMode="decimal" value={price} error={cents === null ? 'An amount like 12 or 12.50.' : undefined} onChange={(e) => setPrice(e.target.value)} />
        </div>
        {add.error && (
          <Notice tone="danger" title="Not written" role="alert">
            {add.error.message}
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={!variant || cents === null || add.isPending}>
          Keep it
        </Button>
      </form>
    </Dialog>
  )
}


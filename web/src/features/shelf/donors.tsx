import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { useSheets } from '@/api/sheets'
import { useMay } from '@/api/session'
import { amount, one, text } from '@/lib/fields'
import { moneySign } from '@/lib/money'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { FieldsDialog, SelectInput, TextInput } from '@/ui/form-dialog'
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

const { origin, place } = BOUNDS.DonorIn
const DONOR = z.object({ variant: one(), origin: text(origin), place: text(place), bought_cents: amount({ mayBeEmpty: true }) })

function AddDonor({ onClose }: { onClose: () => void }) {
  const add = useAddDonor()
  const variants = useSheets()
  const navigate = useNavigate()
  return (
    <FieldsDialog
      title="Keep a donor"
      act="Keep it"
      schema={DONOR}
      start={{ variant: '', origin: '', place: '', bought_cents: '' }}
      error={add.error}
      isBusy={add.isPending}
      onSend={(said) => add.mutate(said, { onSuccess: (donor) => void navigate(`/shelf/donors/${donor.tag}`) })}
      onClose={onClose}
    >
      <SelectInput
        name="variant"
        label="Which drive is in it?"
        choices={variants.data?.map((s) => ({ id: s.drive.variant, label: `${s.drive.variant}: ${s.drive.maker} ${s.drive.console}, revision ${s.drive.revision}` })) ?? []}
      />
      <TextInput name="origin" label="Where it comes from, what was wrong" maxLength={origin.maxLength} />
      <div className="grid gap-3 sm:grid-cols-2">
        <TextInput name="place" label="Where it lies" maxLength={place.maxLength} />
        <TextInput name="bought_cents" label={`Paid, ${moneySign()}`} inputMode="decimal" />
      </div>
    </FieldsDialog>
  )
}

import { useState } from 'react'
import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import { useMay } from '@/api/session'
import type { Instrument, InstrumentSaid } from '@/api/types'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Notice } from '@/ui/panel'
import { useBench } from '../frame/bench-context'

/** What cannot be done on the bench as it is, one line for each reason, and what the shop has to do it with. */
export function Barred() {
  const { job } = useBench()
  const [isOpen, setOpen] = useState(false)
  const { barred } = job.diagnosis
  const count = barred.reduce((n, b) => n + b.titles.length, 0)
  return (
    <section aria-label="Not possible now" className="rounded-xl border border-line bg-paper px-4 py-2">
      <div className="flex flex-wrap items-center justify-between gap-x-4">
        <h2 className="font-bold">{count === 0 ? 'Everything on the list can be done now' : 'Not possible now'}</h2>
        <Button kind="quiet" onClick={() => setOpen(true)}>
          What this shop has
        </Button>
      </div>
      <ul className="divide-y divide-line">
        {barred.map((b) => (
          <li key={b.why}>
            <details>
              <summary className="min-h-11 cursor-pointer content-center">
                {b.why} <span className="text-quiet">{b.titles.length === 1 ? 'One step.' : `${b.titles.length} steps.`}</span>
              </summary>
              <ul className="list-disc pb-2 pl-9 text-quiet">
                {b.titles.map((t) => (
                  <li key={t}>{t}</li>
                ))}
              </ul>
            </details>
          </li>
        ))}
      </ul>
      {isOpen && <Instruments onClose={() => setOpen(false)} />}
    </section>
  )
}

function Instruments({ onClose }: { onClose: () => void }) {
  const found = useQuery({ queryKey: ['instruments'], queryFn: () => dataOf(client.GET('/api/instruments')) })
  const may = useMay('shop')
  const say = useOnce((body: InstrumentSaid) => dataOf(client.POST('/api/instruments', { body })), ['instruments', 'job', 'outlook'])
  return (
    <Dialog title="What this shop has" open onClose={onClose} note={`What is not here is never proposed. ${may ? 'A change counts for every bench at once.' : 'A manager can change it.'}`}>
      {say.isError && (
        <Notice tone="danger" title="Not changed" role="alert">
          {say.error.message}
        </Notice>
      )}
      <Asked of={found} what="the instruments">
        {({ instruments }) => (
          <ul className="divide-y divide-line">
            {instruments.map((i) => (
              <InstrumentRow key={i.id} one={i} isOff={!may || say.isPending} onSay={(is_there) => say.mutate({ instrument: i.id, is_there })} />
            ))}
          </ul>
        )}
      </Asked>
    </Dialog>
  )
}

function InstrumentRow({ one, isOff, onSay }: { one: Instrument; isOff: boolean; onSay: (isThere: boolean) => void }) {
  return (
    <li>
      <label className="flex min-h-12 items-center gap-3 py-1">
        <input type="checkbox" className="size-6 accent-ink" checked={one.is_there} disabled={isOff} onChange={(e) => onSay(e.target.checked)} />
        <span className="font-semibold">{one.name}</span>
        <span className="ml-auto text-quiet">{one.is_there ? 'here' : 'not here'}</span>
      </label>
    </li>
  )
}

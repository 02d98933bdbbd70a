import { useState } from 'react'
import { useMay } from '@/api/session'
import type { Part } from '@/api/types'
import { wholeOf } from '@/lib/whole'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Chip, Notice, Panel } from '@/ui/panel'
import { ShelfPage } from './shelf-page'
import { useCorrectPart, useParts } from './shelf-queries'

const byPlace = (parts: readonly Part[]): [string, Part[]][] => {
  const places = new Map<string, Part[]>()
  for (const p of parts) places.set(p.place || 'nobody wrote where', [...(places.get(p.place || 'nobody wrote where') ?? []), p])
  return [...places].sort(([a], [b]) => a.localeCompare(b))
}

/** A stock-take: place by place, what is counted against what is written. Each count is written as it is typed in, so it can be left and taken up again. */
export function StockTake() {
  const parts = useParts('', '', true)
  return (
    <ShelfPage lead="Count place by place. Each count is written at once with your name; what differs is put right and stays on the part’s trail.">
      <Asked of={parts} what="the shelf">
        {(all) => {
          const own = all.filter((p) => p.owner_job === '')
          return own.length === 0 ? (
            <Notice title="Nothing to count">The shelf has no part yet.</Notice>
          ) : (
            <>
              {byPlace(own).map(([place, there]) => (
                <Panel key={place} title={place} aside={`${there.length} ${there.length === 1 ? 'tag' : 'tags'}`}>
                  <ul className="divide-y divide-line">
                    {there.map((p) => (
                      <CountRow key={p.tag} part={p} />
                    ))}
                  </ul>
                </Panel>
              ))}
            </>
          )
        }}
      </Asked>
    </ShelfPage>
  )
}

function CountRow({ part }: { part: Part }) {
  const may = useMay('shelf')
  const correct = useCorrectPart()
  const [typed, setTyped] = useState('')
  const [before] = useState(part.count)
  const count = wholeOf(typed, 0)
  const isDone = correct.isSuccess
  return (
    <li>
      <form
        className="flex flex-wrap items-end gap-x-4 gap-y-1 py-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (count !== null) correct.mutate({ tag: part.tag, count })
        }}
      >
        <span className="min-w-0 flex-1 basis-56 self-center">
          <b className="figures">{part.tag}</b> {part.name}
          <span className="block text-quiet">written: {before}</span>
        </span>
        <div className="w-28">
          <TextField label="Counted" inputMode="numeric" value={typed} disabled={!may} error={typed !== '' && count === null ? 'A whole number.' : undefined} onChange={(e) => setTyped(e.target.value)} />
        </div>
        <Button type="submit" disabled={!may || count === null || correct.isPending}>
          Write it
        </Button>
        {isDone && <Chip tone={part.count === before ? 'clear' : 'brass'}>{part.count === before ? 'as written' : `put right: ${part.count}`}</Chip>}
        {correct.error && (
          <span role="alert" className="basis-full text-danger">
            {correct.error.message}
          </span>
        )}
      </form>
    </li>
  )
}

import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { USUAL, type Typed, type TypedRange, type TypedReads } from './meter-typed'

const MOST_RANGES = 12

interface Quantity {
  label: string
  unit: string
}

/** One thing that it reads, and how surely, from its maker's sheet; in ranges where they differ. */
export function Reads({ of, typed, onChange, onDrop }: { of: Quantity; typed: TypedReads | undefined; onChange: (typed: TypedReads) => void; onDrop: () => void }) {
  return (
    <fieldset className="rounded-lg border border-line px-3 pb-2.5">
      <legend>
        <Box label={of.label} isOn={typed !== undefined} onFlip={() => (typed ? onDrop() : onChange(USUAL))} />
      </legend>
      {typed && (
        <>
          <div className="grid gap-3 sm:grid-cols-3">
            <Sure of={of} typed={typed} onChange={(sure) => onChange({ ...typed, ...sure })} />
          </div>
          <Ranges of={of} ranges={typed.ranges} onChange={(ranges) => onChange({ ...typed, ranges })} />
        </>
      )}
    </fieldset>
  )
}

function Sure({ of, typed, onChange }: { of: Quantity; typed: Typed; onChange: (typed: Partial<Typed>) => void }) {
  return (
    <>
      <TextField label="percent of the value" inputMode="decimal" value={typed.pct} onChange={(e) => onChange({ pct: e.target.value })} />
      <TextField label="and last digits" inputMode="decimal" value={typed.digits} onChange={(e) => onChange({ digits: e.target.value })} />
      <TextField label={`each worth, in ${of.unit}`} inputMode="decimal" value={typed.resolution} onChange={(e) => onChange({ resolution: e.target.value })} />
    </>
  )
}

/** Where its maker states it range by range: a reading takes the smallest that holds it, and what stands above beyond them. */
function Ranges({ of, ranges, onChange }: { of: Quantity; ranges: TypedRange[]; onChange: (ranges: TypedRange[]) => void }) {
  const id = 1 + Math.max(-1, ...ranges.map((r) => r.id))
  return (
    <div className="mt-2">
      <ul aria-label={`Ranges of ${of.label.toLowerCase()}`}>
        {ranges.map((r) => (
          <li key={r.id} className="grid items-end gap-3 border-t border-line py-2 sm:grid-cols-[1fr_1fr_1fr_1fr_auto]">
            <TextField label={`up to, in ${of.unit}`} inputMode="decimal" value={r.upTo} onChange={(e) => onChange(ranges.map((x) => (x.id === r.id ? { ...x, upTo: e.target.value } : x)))} />
            <Sure of={of} typed={r} onChange={(sure) => onChange(ranges.map((x) => (x.id === r.id ? { ...x, ...sure } : x)))} />
            <Button onClick={() => onChange(ranges.filter((x) => x.id !== r.id))}>Drop</Button>
          </li>
        ))}
      </ul>
      {ranges.length < MOST_RANGES && <Button onClick={() => onChange([...ranges, { id, upTo: '', pct: '0.5', digits: '3', resolution: '' }])}>A range of its own</Button>}
    </div>
  )
}

export function Box({ label, isOn, onFlip }: { label: string; isOn: boolean; onFlip: () => void }) {
  return (
    <label className="inline-flex min-h-11 items-center gap-2.5">
      <input type="checkbox" className="size-6 accent-ink" checked={isOn} onChange={onFlip} />
      {label}
    </label>
  )
}

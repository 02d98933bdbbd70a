import { useState } from 'react'
import type { SheetForm } from '@/api/types'
import { moneySign } from '@/lib/money'
import { discClass } from '@/lib/words'
import { Button } from '@/ui/button'
import type { SheetDocument } from './document'

const CHECK = 'inline-flex min-h-11 cursor-pointer items-center gap-2'

interface Props {
  document: SheetDocument
  form: SheetForm
  onDrive: (more: Partial<SheetDocument['drive']>) => void
}

/** Reference times, prices and which way a label faces: the shop's own figures for this drive. */
export function FiguresEditor({ document, form, onDrive }: Props) {
  const { drive } = document
  const times = drive.reference_times ?? {}
  const prices = drive.prices ?? {}
  const repairs = form.repairs[drive.family] ?? []
  const number = (label: string, value: number, set: (n: number) => void) => (
    <input type="number" step="any" aria-label={label} className="min-h-11 w-24 rounded-lg border border-ink/55 bg-paper px-2 figures" value={value} onChange={(e) => set(Number(e.target.value))} />
  )
  return (
    <div className="grid gap-4 lg:grid-cols-2">
      <fieldset>
        <legend className="mb-1 font-semibold">Time from insert to play, on healthy units</legend>
        {drive.classes.map((c) => {
          const t = times[c]
          const set = (more: Partial<NonNullable<typeof t>>) => onDrive({ reference_times: { ...times, [c]: { mean_s: 20, sd_s: 2, n: 10, ...t, ...more } } })
          const without = () => onDrive({ reference_times: Object.fromEntries(Object.entries(times).filter(([k]) => k !== c)) })
          return (
            <div key={c} className="flex min-h-12 flex-wrap items-center gap-2">
              <label className={`${CHECK} w-36`}>
                <input type="checkbox" className="size-5" checked={t !== undefined} onChange={() => (t ? without() : set({}))} />
                {discClass(c)}
              </label>
              {t && (
                <>
                  {number(`${discClass(c)}, mean in seconds`, t.mean_s, (n) => set({ mean_s: n }))} s ±{number(`${discClass(c)}, spread in seconds`, t.sd_s, (n) => set({ sd_s: n }))} s from
                  {number(`${discClass(c)}, readings`, t.n, (n) => set({ n }))}
                </>
              )}
            </div>
          )
        })}
      </fieldset>
      <fieldset>
        <legend className="mb-1 font-semibold">Prices and waits where nothing is on the shelf</legend>
        {Object.entries(prices).map(([r, p]) => (
          <div key={r} className="flex min-h-12 flex-wrap items-center gap-2">
            <span className="w-44">{repairs.find((x) => x.id === r)?.label ?? r}</span>{moneySign()}
            {number(`${r}, price in ${moneySign()}`, p.price_eur, (n) => onDrive({ prices: { ...prices, [r]: { ...p, price_eur: n } } }))}
            {number(`${r}, wait in days`, p.wait_days, (n) => onDrive({ prices: { ...prices, [r]: { ...p, wait_days: n } } }))} days
            <Button kind="quiet" className="px-1!" aria-label={`Take out the price of ${r}`} onClick={() => onDrive({ prices: Object.fromEntries(Object.entries(prices).filter(([k]) => k !== r)) })}>
              Take out
            </Button>
          </div>
        ))}
        {Object.keys(prices).length === 0 && <p className="text-quiet">The family&apos;s own figures are used.</p>}
        <select className="mt-1 min-h-11 rounded-lg border border-ink/55 bg-paper px-2" aria-label="Add a price for" value="" onChange={(e) => onDrive({ prices: { ...prices, [e.target.value]: { price_eur: 0, wait_days: 0 } } })}>
          <option value="">Add a price for…</option>
          {repairs
            .filter((r) => !(r.id in prices))
            .map((r) => (
              <option key={r.id} value={r.id}>
                {r.label}
              </option>
            ))}
        </select>
      </fieldset>
      <LabelFaces faces={drive.label_faces ?? {}} onChange={(label_faces) => onDrive({ label_faces })} />
    </div>
  )
}

/** Where the label side of a disc faces, for each way the unit stands on the bench: a disc the wrong way round reads like a dead drive. */
function LabelFaces({ faces, onChange }: { faces: Record<string, string>; onChange: (faces: Record<string, string>) => void }) {
  const [position, setPosition] = useState('')
  const [side, setSide] = useState('')
  const box = 'min-h-11 rounded-lg border border-ink/55 bg-paper px-2'
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Where the label side of a disc faces</legend>
      {Object.entries(faces).map(([p, f]) => (
        <div key={p} className="flex min-h-11 flex-wrap items-center gap-2">
          {p}: <b>{f}</b>
          <Button kind="quiet" className="px-1!" aria-label={`Take out ${p}`} onClick={() => onChange(Object.fromEntries(Object.entries(faces).filter(([k]) => k !== p)))}>
            Take out
          </Button>
        </div>
      ))}
      <div className="flex flex-wrap gap-2">
        <input className={box} aria-label="How the unit stands" placeholder="how the unit stands" maxLength={60} value={position} onChange={(e) => setPosition(e.target.value)} />
        <input className={box} aria-label="The label faces" placeholder="the label faces" maxLength={40} value={side} onChange={(e) => setSide(e.target.value)} />
        <Button
          disabled={!position.trim() || !side.trim()}
          onClick={() => {
            onChange({ ...faces, [position.trim()]: side.trim() })
            setPosition('')
            setSide('')
          }}
        >
          Add
        </Button>
      </div>
    </fieldset>
  )
}

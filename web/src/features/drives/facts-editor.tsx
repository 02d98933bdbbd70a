import type { SheetForm } from '@/api/types'
import { discClass } from '@/lib/words'
import { Choice, TextField } from '@/ui/field'
import { Panel } from '@/ui/panel'
import { CLASSES, FLAGS, type SheetDocument } from './document'
import { SourceFields } from './source-fields'

const PAIRINGS = [
  { id: 'none', label: 'Unpaired' },
  { id: 'board', label: 'Board' },
  { id: 'chip', label: 'Chip' },
  { id: 'unknown', label: 'Not known' },
]
const CHECK = 'inline-flex min-h-11 cursor-pointer items-center gap-2'

interface Props {
  document: SheetDocument
  form: SheetForm
  /** JSON pointer of what the server refused. */
  place: string
  onChange: (document: SheetDocument) => void
}

/** The facts that the rules rest on, and where they come from. */
export function FactsEditor({ document, form, place, onChange }: Props) {
  const { drive } = document
  const setDrive = (more: Partial<SheetDocument['drive']>) => onChange({ ...document, drive: { ...drive, ...more } })
  const refused = (at: string) => (place === at ? 'The server refused this: see below.' : undefined)
  return (
    <Panel title="Facts">
      <div className="space-y-4">
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField label="Maker" value={document.maker} maxLength={40} error={refused('/maker')} onChange={(e) => onChange({ ...document, maker: e.target.value })} />
          <TextField label="Console" value={document.console} maxLength={40} error={refused('/console')} onChange={(e) => onChange({ ...document, console: e.target.value })} />
          <TextField label="Board revision" value={document.revision} maxLength={40} error={refused('/revision')} onChange={(e) => onChange({ ...document, revision: e.target.value })} />
        </div>
        <Choice label="What does the console accept only from its own drive?" choices={PAIRINGS} value={drive.pairing ?? 'unknown'} onChange={(pairing) => setDrive({ pairing })} />
        <SourceFields label="The pairing rule" fact="pairing" document={document} form={form} onChange={onChange} />
        <fieldset>
          <legend className="mb-1 font-semibold">Disc classes that it reads</legend>
          <div className="flex flex-wrap gap-x-4">
            {CLASSES.map((c) => (
              <label key={c} className={CHECK}>
                <input
                  type="checkbox"
                  className="size-5"
                  checked={drive.classes.includes(c)}
                  onChange={() => setDrive({ classes: drive.classes.includes(c) ? drive.classes.filter((x) => x !== c) : [...drive.classes, c] })}
                />
                {discClass(c)}
              </label>
            ))}
          </div>
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-semibold">What it has</legend>
          <div className="grid gap-x-4 sm:grid-cols-2">
            {FLAGS.filter((f) => f.family === '' || f.family === drive.family).map((f) => (
              <label key={f.id} className={CHECK}>
                <input type="checkbox" className="size-5" checked={drive[f.id] ?? f.byDefault} onChange={() => setDrive({ [f.id]: !(drive[f.id] ?? f.byDefault) })} />
                {f.name}
              </label>
            ))}
          </div>
        </fieldset>
        <div className="grid gap-3 sm:grid-cols-2">
          <TextField label="Fuse, rating and speed" hint="As printed: “1.5 A fast”. Empty if the drive board has none." value={drive.fuse_rating ?? ''} maxLength={60} error={refused('/drive/fuse_rating')} onChange={(e) => setDrive({ fuse_rating: e.target.value })} />
          {drive.family === 'lid' && (
            <Choice
              label="Lid switches"
              choices={[
                { id: '1', label: 'One' },
                { id: '2', label: 'Two' },
              ]}
              value={String(drive.lid_switches ?? 1)}
              onChange={(n) => setDrive({ lid_switches: Number(n) })}
            />
          )}
        </div>
        <Numbers document={document} onDrive={setDrive} />
        <SourceFields label="Every fact with no source of its own" fact="*" document={document} form={form} onChange={onChange} />
      </div>
    </Panel>
  )
}

/** Reference times and prices: the shop's own figures for this drive. */
function Numbers({ document, onDrive }: { document: SheetDocument; onDrive: (more: Partial<SheetDocument['drive']>) => void }) {
  const { drive } = document
  const times = drive.reference_times ?? {}
  const prices = drive.prices ?? {}
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
            <span className="w-36">{r.replaceAll('_', ' ')}</span>€
            {number(`${r}, price in euro`, p.price_eur, (n) => onDrive({ prices: { ...prices, [r]: { ...p, price_eur: n } } }))}
            {number(`${r}, wait in days`, p.wait_days, (n) => onDrive({ prices: { ...prices, [r]: { ...p, wait_days: n } } }))} days
          </div>
        ))}
        {Object.keys(prices).length === 0 && <p className="text-quiet">The family&apos;s own figures are used.</p>}
      </fieldset>
    </div>
  )
}

import type { SheetForm } from '@/api/types'
import { discClass } from '@/lib/words'
import { Choice, TextField } from '@/ui/field'
import { Panel } from '@/ui/panel'
import { CLASSES, FLAGS, LEVEL_POINTS, type SheetDocument } from './document'
import { FiguresEditor } from './figures-editor'
import { SourceFields } from './source-fields'

const PAIRINGS = [
  { id: 'none', label: 'Unpaired' },
  { id: 'board', label: 'Board' },
  { id: 'chip', label: 'Chip' },
  { id: 'unknown', label: 'Not known' },
]
/** Facts that often have a source of their own; pairing and looks stand where they are asked. */
const SOURCED = [
  ['classes', 'Disc classes'],
  ['has_trimmer', 'Trimmer'],
  ['fuse_rating', 'Fuse'],
  ['motor_soldered', 'Motors'],
  ['reference_times', 'Times to play'],
  ['label_faces', 'Label sides'],
  ['prices', 'Prices'],
] as const
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
        <WhatItHas drive={drive} onDrive={setDrive} />
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
        <Choice label="What does the test point for light measure?" choices={LEVEL_POINTS} value={drive.level_point ?? 'unknown'} onChange={(level_point) => setDrive({ level_point })} />
        <FiguresEditor document={document} form={form} onDrive={setDrive} />
        <details>
          <summary className="min-h-11 cursor-pointer text-quiet underline underline-offset-2">Where single facts come from</summary>
          <div className="mt-1 space-y-1.5">
            {SOURCED.map(([fact, label]) => (
              <SourceFields key={fact} label={label} fact={fact} document={document} form={form} onChange={onChange} />
            ))}
          </div>
        </details>
        <SourceFields label="Every fact with no source of its own" fact="*" document={document} form={form} onChange={onChange} />
      </div>
    </Panel>
  )
}

function WhatItHas({ drive, onDrive }: { drive: SheetDocument['drive']; onDrive: (more: Partial<SheetDocument['drive']>) => void }) {
  return (
    <>
      <fieldset>
        <legend className="mb-1 font-semibold">Disc classes that it reads</legend>
        <div className="flex flex-wrap gap-x-4">
          {CLASSES.map((c) => (
            <label key={c} className={CHECK}>
              <input
                type="checkbox"
                className="size-5"
                checked={drive.classes.includes(c)}
                onChange={() => onDrive({ classes: drive.classes.includes(c) ? drive.classes.filter((x) => x !== c) : [...drive.classes, c] })}
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
              <input type="checkbox" className="size-5" checked={drive[f.id] ?? f.byDefault} onChange={() => onDrive({ [f.id]: !(drive[f.id] ?? f.byDefault) })} />
              {f.name}
            </label>
          ))}
        </div>
      </fieldset>
    </>
  )
}

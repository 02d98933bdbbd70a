import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useSheets } from '@/api/sheets'
import { useMay } from '@/api/session'
import type { components } from '@/api/schema'
import { discClass } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { FileButton } from '@/ui/file-button'
import { Chip, Notice } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { BeginSheet } from './begin-sheet'
import { DrivePlan } from './drive-plan'
import { useImportSheet } from './drive-queries'
import { DrivesNav } from './drives-nav'
import { PAIRING_SHORT } from './pairing'

type Sheet = components['schemas']['SheetView']
const FAMILIES = [
  { id: 'tray', name: 'Tray load', about: 'a tray slides out' },
  { id: 'slot', name: 'Slot load', about: 'rollers draw the disc in' },
  { id: 'lid', name: 'Lid load', about: 'a lid is lifted by hand' },
]

/** Every drive that the shop has a sheet of, by loader family. */
export function Gallery() {
  const sheets = useSheets()
  const may = useMay('sheets')
  return (
    <Page title="Drives" lead="What this shop knows about each drive, with where every value comes from." actions={may && <Actions />}>
      <DrivesNav />
      <Asked of={sheets} what="drive sheets">
        {(all) =>
          all.length === 0 ? (
            <Notice title="No drive sheet yet">Begin one here, load one from a file, or take a unit in: its sheet is begun with it.</Notice>
          ) : (
            <>
              {FAMILIES.map((f) => (
                <Family key={f.id} {...f} sheets={all.filter((s) => s.drive.family === f.id)} />
              ))}
            </>
          )
        }
      </Asked>
    </Page>
  )
}

function Family({ name, about, sheets }: { name: string; about: string; sheets: Sheet[] }) {
  if (sheets.length === 0) return null
  return (
    <section>
      <h2 className="mb-2 text-[1.15rem] font-bold">
        {name} <span className="font-normal text-quiet">{about}</span>
      </h2>
      <ul className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
        {sheets.map((s) => (
          <li key={s.id}>
            <Link to={`/drives/${s.drive.variant}`} className="block h-full rounded-xl border border-line bg-paper p-3 hover:border-ink">
              <div className="[&_text]:hidden">
                <DrivePlan drive={s.drive} parts={[]} />
              </div>
              <span className="mt-2 flex items-baseline justify-between gap-2">
                <b className="figures text-[1.1rem]">{s.drive.variant}</b>
                <span className="text-tiny text-quiet">version {s.version}</span>
              </span>
              <span className="block leading-tight">
                {s.drive.maker} {s.drive.console}, revision {s.drive.revision}
              </span>
              <span className="mt-1.5 flex flex-wrap gap-1">
                <Chip tone={s.drive.pairing === 'none' ? 'clear' : 'brass'}>{PAIRING_SHORT[s.drive.pairing]}</Chip>
                {s.classes.map((c) => (
                  <Chip key={c}>{discClass(c)}</Chip>
                ))}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  )
}

function Actions() {
  const navigate = useNavigate()
  const [isBeginning, setBeginning] = useState(false)
  return (
    <>
      <Button kind="act" onClick={() => setBeginning(true)}>
        New drive sheet
      </Button>
      <ImportSheet />
      {isBeginning && <BeginSheet onMade={(sheet) => void navigate(`/drives/${encodeURIComponent(sheet.drive.variant)}/edit`)} onClose={() => setBeginning(false)} />}
    </>
  )
}

function ImportSheet() {
  const load = useImportSheet()
  const navigate = useNavigate()
  const [name, setName] = useState('')
  const take = (file: File) => {
    setName(file.name)
    load.mutate({ file }, { onSuccess: (sheet) => void navigate(`/drives/${sheet.drive.variant}`) })
  }
  return (
    <div className="max-w-md">
      <FileButton kind="plain" label="A drive sheet as a file" accept=".json,application/json" disabled={load.isPending} onFile={take}>
        {load.isPending ? 'Reading…' : 'Load a sheet from a file'}
      </FileButton>
      {load.error && (
        <div className="mt-2">
          <Notice tone="danger" title={`${name} was not loaded; nothing was changed`} role="alert">
            {load.error.message}
          </Notice>
        </div>
      )}
    </div>
  )
}

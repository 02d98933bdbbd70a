import { useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { useSheetForm } from '@/api/sheets'
import { useMay } from '@/api/session'
import type { SheetDetail, SheetForm, Table } from '@/api/types'
import { dayOf } from '@/lib/dates'
import { money } from '@/lib/money'
import { discClass, lowerFirst } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { Term, type Word } from '@/ui/term'
import { BeginSheet } from './begin-sheet'
import { LEVEL_POINTS, type SheetDocument } from './document'
import { DrivePlan } from './drive-plan'
import { useRetireSheet, useSheet } from './drive-queries'
import { Outside } from './outside'
import { PAIRING } from './pairing'
import { RowsTable } from './rows-table'
import { SourceMark } from './source-mark'

const LINK = 'inline-flex min-h-11 items-center rounded-lg border border-ink/55 bg-paper px-3.5 hover:border-ink'

/** One drive sheet: its plan, its facts and its tables, each value with where it comes from. */
export function SheetScreen() {
  const { variant = '' } = useParams()
  const [query] = useSearchParams()
  const asked = query.get('version')
  const sheet = useSheet(variant, asked === null ? undefined : Number(asked))
  const form = useSheetForm()
  return (
    <Asked of={sheet} what={`the sheet of ${variant}`}>
      {(found) => (
        <Asked of={form} what="the tables">
          {(words) => <Sheet sheet={found} form={words} />}
        </Asked>
      )}
    </Asked>
  )
}

function Sheet({ sheet, form }: { sheet: SheetDetail; form: SheetForm }) {
  const may = useMay('sheets')
  const { drive } = sheet
  const document = sheet.document as unknown as SheetDocument
  const filled = form.tables.filter((t) => (document.tables[t.id] ?? []).length > 0)
  return (
    <Page
      name={`Drive ${drive.variant}`}
      title={
        <>
          <span className="figures">{drive.variant}</span> {drive.maker} {drive.console}, revision {drive.revision}
        </>
      }
      lead={
        <>
          <Link to="/drives" className="inline-flex min-h-11 min-w-11 items-center underline underline-offset-2">
            All drives
          </Link>{' '}
          · version {sheet.version}
          {!sheet.is_current && ' (not the newest)'}
          {sheet.also_in.length > 0 && ` · also found in ${sheet.also_in.join('; ')}`}
        </>
      }
      actions={
        <Actions sheet={sheet} may={may} />
      }
    >
      <Standing sheet={sheet} />
      <div className="grid gap-4 lg:grid-cols-[31rem_minmax(0,1fr)]">
        <Panel className="overflow-x-auto">
          <div className="w-[28.5rem]">
            <DrivePlan drive={drive} parts={[]} />
          </div>
        </Panel>
        <Panel title="Facts">
          <Facts sheet={sheet} document={document} form={form} />
        </Panel>
      </div>
      {sheet.gaps.length > 0 && (
        <Notice tone="brass" title="Not known yet">
          <ul className="list-disc pl-5">
            {sheet.gaps.map((g) => (
              <li key={g.text}>{g.text}</li>
            ))}
          </ul>
        </Notice>
      )}
      {filled.map((t) => (
        <TablePanel key={t.id} table={t} document={document} variant={drive.variant} form={form} />
      ))}
      <Outside drive={drive} form={form} may={may} />
      {may && sheet.is_current && <Beside sheet={sheet} />}
      <Versions sheet={sheet} />
    </Page>
  )
}

/** What has to be known before this sheet is relied on: an older version, or out of use. */
function Standing({ sheet }: { sheet: SheetDetail }) {
  const { drive } = sheet
  return (
    <>
      {!sheet.is_current && (
        <Notice tone="brass" title="An older version">
          Jobs that were done with it keep it. <Link to={`/drives/${drive.variant}`}>Show the newest</Link>.
        </Notice>
      )}
      {sheet.is_retired && (
        <Notice tone="brass" title="Out of use">
          No unit with this drive is taken in any more. Jobs that have it keep it.
        </Notice>
      )}
    </>
  )
}

function Actions({ sheet, may }: { sheet: SheetDetail; may: boolean }) {
  const { drive } = sheet
  return (
    <>
      <a className={LINK} href={`/api/sheets/${drive.variant}/file`} download>
        Save as a file
      </a>
      <Link className={LINK} to={`/drives/fits?variant=${drive.variant}`}>
        What fits it
      </Link>
      {may && sheet.is_current && (
        <Link className={`${LINK} bg-ink! text-paper`} to={`/drives/${drive.variant}/edit`}>
          Edit
        </Link>
      )}
    </>
  )
}

function Versions({ sheet }: { sheet: SheetDetail }) {
  return (
    <Panel title="Versions" level={2}>
      <ul className="divide-y divide-line">
        {sheet.versions.map((v) => (
          <li key={v.id} className="flex flex-wrap gap-x-3 py-1.5">
            <Link to={`/drives/${sheet.drive.variant}?version=${v.version}`} className="figures font-semibold inline-flex min-h-11 min-w-11 items-center underline underline-offset-2">
              version {v.version}
            </Link>
            <span>{v.why || 'no reason given'}</span>
            <span className="text-quiet">
              {v.by}
              {v.at && `, ${dayOf(v.at)}`}
            </span>
          </li>
        ))}
      </ul>
    </Panel>
  )
}

/** Another variant often differs in a few values alone; and one that nobody brings any more is taken out of use. */
function Beside({ sheet }: { sheet: SheetDetail }) {
  const { variant } = sheet.drive
  const [isBeginning, setBeginning] = useState(false)
  const navigate = useNavigate()
  const retire = useRetireSheet(variant)
  return (
    <Panel title="Beside this sheet">
      <p className="flex flex-wrap gap-2">
        <Button onClick={() => setBeginning(true)}>A new sheet like this one</Button>
        <Button disabled={retire.isPending} onClick={() => retire.mutate({ is_retired: !sheet.is_retired })}>
          {sheet.is_retired ? 'Back into use' : 'Out of use: nobody brings one any more'}
        </Button>
      </p>
      {retire.error && (
        <Notice tone="danger" title="Not changed" role="alert">
          {retire.error.message}
        </Notice>
      )}
      {isBeginning && <BeginSheet like={variant} onMade={(made) => void navigate(`/drives/${encodeURIComponent(made.drive.variant)}/edit`)} onClose={() => setBeginning(false)} />}
    </Panel>
  )
}

/** What is said of a drive where it is so, and not where it is not. */
const ALSO = [
  ['two_lenses', 'Lenses', 'two, one for the short light alone'],
  ['fuse_feeds_console', 'Its fuse', 'feeds the console too'],
  ['foreign_reads_films', 'Foreign board', 'still reads films and music'],
  ['switches_without_contacts', 'Switches', 'light gates or Hall sensors: no contact cleaner'],
  ['board_under_deck', 'Drive board', 'hangs under the deck'],
] as const

/** Facts whose name is a word of the trade -> the word as the glossary has it. */
const WORD_OF: Readonly<Record<string, Word>> = { Pairing: 'pairing', Trimmer: 'trimmer' }

function Facts({ sheet, document, form }: { sheet: SheetDetail; document: SheetDocument; form: SheetForm }) {
  const { drive } = sheet
  const rows: [string, string, string][] = [
    ['pairing', 'Pairing', PAIRING[drive.pairing] ?? ''],
    ['classes', 'Reads', sheet.classes.map(discClass).join(', ')],
    ['classes', 'Light', drive.wavelengths.map((nm) => `${nm} nm`).join(', ')],
    ['fuse_rating', 'Fuse', drive.fuse_rating || 'none on the drive board'],
    ['has_trimmer', 'Trimmer', drive.has_trimmer ? 'on the pickup' : 'none'],
    ['motor_soldered', 'Motors', drive.motor_soldered ? 'soldered' : 'plugged'],
    ...(drive.family === 'tray' ? ([['has_belt', 'Load', drive.has_belt ? 'by a belt' : 'by gears alone']] as [string, string, string][]) : []),
    ...(drive.family === 'lid' ? ([['lid_switches', 'Lid switches', String(drive.lid_switches)]] as [string, string, string][]) : []),
    ...ALSO.flatMap(([fact, name, value]): [string, string, string][] => (document.drive[fact] ? [[fact, name, value]] : [])),
    ...LEVEL_POINTS.filter((p) => p.id !== 'unknown' && p.id === document.drive.level_point).map((p): [string, string, string] => ['level_point', 'Point for light', lowerFirst(p.label)]),
    ...Object.entries(document.drive.reference_times ?? {}).map(([c, t]): [string, string, string] => ['reference_times', `${discClass(c)} to play`, `${t.mean_s} s ± ${t.sd_s} s, ${t.n} readings`]),
    ...Object.entries(document.drive.prices ?? {}).map(([r, p]): [string, string, string] => ['prices', r.replaceAll('_', ' '), `${money(Math.round(p.price_eur * 100))}, ${p.wait_days} days`]),
  ]
  return (
    <table className="w-full text-left">
      <tbody>
        {rows.map(([fact, name, value]) => (
          <tr key={name} className="border-t border-line align-top first:border-0">
            <th scope="row" className="w-40 py-1.5 pr-3 font-normal text-quiet">
              {name in WORD_OF ? <Term word={WORD_OF[name]!} says={name} /> : name}
            </th>
            <td className="py-1.5 pr-3 font-semibold">{value}</td>
            <td className="py-1.5">
              <SourceMark source={document.sources[fact] ?? document.sources['*']!} form={form} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function TablePanel({ table, document, variant, form }: { table: Table; document: SheetDocument; variant: string; form: SheetForm }) {
  return (
    <Panel
      title={table.title}
      aside={
        <span className="flex items-baseline gap-3">
          <span>{table.about}</span>
          <a className="whitespace-nowrap inline-flex min-h-11 min-w-11 items-center underline underline-offset-2" href={`/api/sheets/${variant}/tables/${table.id}`} download>
            CSV
          </a>
        </span>
      }
    >
      <RowsTable table={table} rows={document.tables[table.id] ?? []} form={form} />
      {table.id === 'assemblies' && (
        <p className="mt-2 text-tiny text-quiet">
          <Chip>key</Chip> {PAIRING[document.drive.pairing ?? 'unknown']}
        </p>
      )}
    </Panel>
  )
}

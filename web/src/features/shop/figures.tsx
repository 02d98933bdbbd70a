import { useEffect, useState } from 'react'
import { BOUNDS } from '@/api/bounds'
import type { Figures, FiguresSaid } from '@/api/types'
import { MOST_LABELS } from '@/lib/label-sheet'
import { centsOf, money } from '@/lib/money'
import { wholeOf } from '@/lib/whole'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { TextArea, TextField } from '@/ui/field'
import { Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { ShopNav } from './shop-nav'
import { useFigures, useSetFigures } from './shop-queries'
import { Traces } from './traces'

type Kind = 'text' | 'long' | 'cents' | 'days' | 'count'
type Name = Exclude<keyof Figures, 'traces' | 'version'>
interface Field {
  label: string
  hint?: string
  kind?: Kind
  /** Of a count: from 1 on, unless it says otherwise. */
  least?: number
  most?: number
}

const FIELDS: Record<Name, Field> = {
  name: { label: 'Name', hint: 'It stands on every report and receipt.' },
  place: { label: 'Address' },
  phone: { label: 'Phone' },
  currency: { label: 'Currency, three letters', hint: 'EUR, GBP, … What was priced before keeps its number.' },
  time_zone: { label: 'Time zone', hint: 'Every day and hour on the screens is by it: Etc/GMT-1, UTC, …' },
  terms: { label: 'Terms under the receipt', kind: 'long', hint: 'What the shop and the owner hold each other to.' },
  price_cents_per_min: { label: 'A minute is charged at', kind: 'cents', hint: 'What the owner pays for the bench.' },
  guarantee_days: { label: 'Longest guarantee, in days', kind: 'days', hint: 'A repair whose own is shorter keeps it.' },
  cost_cents_per_min: { label: 'A minute costs the shop', kind: 'cents', hint: 'The advice weighs looking against doing by it.' },
  day_cents: { label: 'A day’s wait costs', kind: 'cents', hint: 'Shelf room and goodwill.' },
  late_day_cents: { label: 'A day past the promise costs', kind: 'cents', hint: 'On top: an owner who calls.' },
  give_up_cents: { label: 'Giving a unit back unrepaired costs', kind: 'cents', hint: 'The fee that is lost, and goodwill. At most what a unit is worth.' },
  opening: { label: 'Open', kind: 'long', hint: 'A line for one day or several: Mon-Fri 9:00-12:30 13:15-18:00' },
  closed_days: { label: 'Shut on', kind: 'long', hint: 'A line for each day or row of days: 2026-12-24 to 2027-01-02' },
  benches: { label: 'People at the bench at a time', kind: 'count', most: 20, hint: 'The week is worked out for so many.' },
  without_iron: { label: 'Of them, do not solder', kind: 'count', least: 0, most: 19, hint: 'Soldering waits for the others, and leaves them the rest.' },
  label_columns: { label: 'Labels across', kind: 'count', most: MOST_LABELS.columns, hint: 'Of the sheets in the printer, on A4.' },
  label_rows: { label: 'Labels down', kind: 'count', most: MOST_LABELS.rows },
  return_cents: { label: 'A unit that comes back costs', kind: 'cents', hint: 'The way in and out again, and an apology.' },
  damage_cents: { label: 'A spoilt drive costs', kind: 'cents', hint: 'What a used one is bought for.' },
}
const GROUPS: { title: string; note: string; names: Name[] }[] = [
  { title: 'Who we are', note: 'on reports, receipts and tags', names: ['name', 'place', 'phone', 'currency', 'label_columns', 'label_rows', 'time_zone', 'terms'] },
  { title: 'When somebody is there', note: 'promises are reckoned in these hours', names: ['opening', 'closed_days', 'benches', 'without_iron'] },
  { title: 'What owners pay', note: 'on quotes', names: ['price_cents_per_min', 'guarantee_days'] },
  { title: 'What it costs us', note: 'the advice reckons with it; owners never see it', names: ['cost_cents_per_min', 'day_cents', 'late_day_cents', 'give_up_cents', 'return_cents', 'damage_cents'] },
]

const typed = (name: Name, figures: Figures): string => (FIELDS[name].kind === 'cents' ? (Number(figures[name]) / 100).toFixed(2) : String(figures[name]))

function read(name: Name, text: string): string | number | null {
  const { kind, least = 1, most = 0 } = FIELDS[name]
  if (kind === 'cents') return centsOf(text)
  if (kind === 'days') return wholeOf(text, 0, 3650)
  if (kind === 'count') return wholeOf(text, least, most)
  return name === 'currency' ? (/^[A-Za-z]{3}$/.test(text.trim()) ? text.trim().toUpperCase() : null) : text.trim()
}

const WRONG: Record<Kind, string> = { cents: 'An amount like 24 or 24.50.', days: 'A whole number of days.', count: 'A whole number from', text: 'Three letters, as EUR.', long: '' }

const said = (field: string, value: unknown): string => {
  const kind = FIELDS[field as Name]?.kind
  if (typeof value === 'boolean') return value ? 'is here' : 'is not here'
  return kind === 'cents' ? money(Number(value)) : kind === 'days' ? `${value} days` : `“${value}”`
}

export function FiguresForm() {
  const figures = useFigures()
  return (
    <Page title="The shop" lead="What stands on papers, and what the advice reckons with. Each change counts for every job from then on, and keeps who made it.">
      <ShopNav />
      <Asked of={figures} what="the shop’s figures">
        {(found) => (
          <>
            <Form figures={found} />
            <Traces traces={found.traces} name={(t) => FIELDS[t.field as Name]?.label ?? t.field.replaceAll('_', ' ')} value={said} />
          </>
        )}
      </Asked>
    </Page>
  )
}

function Form({ figures }: { figures: Figures }) {
  const save = useSetFigures()
  const [now, setNow] = useState<Partial<Record<Name, string>>>({})
  const names = (Object.keys(now) as Name[]).filter((n) => now[n] !== typed(n, figures))
  const isWrong = names.some((n) => read(n, now[n] ?? '') === null)
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => names.length > 0 && event.preventDefault()
    window.addEventListener('beforeunload', warn)
    return () => window.removeEventListener('beforeunload', warn)
  }, [names.length])
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault()
        const told = Object.fromEntries(names.map((n) => [n, read(n, now[n] ?? '')])) as Partial<FiguresSaid>
        if (names.length > 0 && !isWrong) save.mutate({ version: figures.version, ...told }, { onSuccess: () => setNow({}) })
      }}
    >
      {GROUPS.map((g) => (
        <Panel key={g.title} title={g.title} aside={g.note}>
          <div className="grid gap-4 md:grid-cols-2">
            {g.names.map((n) => (
              <OneField key={n} name={n} value={now[n] ?? typed(n, figures)} onChange={(text) => setNow({ ...now, [n]: text })} />
            ))}
          </div>
        </Panel>
      ))}
      {save.error && (
        <Notice tone="danger" title="Not saved" role="alert">
          {save.error.message}
        </Notice>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <Button kind="act" type="submit" disabled={names.length === 0 || isWrong || save.isPending}>
          {save.isPending ? 'Saving…' : 'Save'}
        </Button>
        {names.length > 0 && (
          <Button kind="quiet" onClick={() => setNow({})}>
            Leave it as it was
          </Button>
        )}
        <span className="text-quiet">{names.length === 0 ? 'Nothing is changed.' : `${names.length} changed, not saved yet.`}</span>
      </div>
    </form>
  )
}

function OneField({ name, value, onChange }: { name: Name; value: string; onChange: (text: string) => void }) {
  const { label, hint, kind = 'text', least = 1, most } = FIELDS[name]
  const error = read(name, value) === null ? `${WRONG[kind]}${most ? ` ${least} to ${most}.` : ''}` : undefined
  const bound = (BOUNDS.FiguresIn as Partial<Record<Name, { maxLength?: number }>>)[name]?.maxLength
  const own = { label, hint, error, value, maxLength: bound }
  if (kind === 'long') return <div className="md:col-span-2"><TextArea {...own} onChange={(e) => onChange(e.target.value)} /></div>
  return <TextField {...own} inputMode={kind === 'cents' ? 'decimal' : kind === 'days' || kind === 'count' ? 'numeric' : 'text'} onChange={(e) => onChange(e.target.value)} />
}

import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { useSheetForm, useSheets } from '@/api/sheets'
import { useMay } from '@/api/session'
import type { Fit, Fits, SheetForm } from '@/api/types'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { useFitsOfUnit, useHomesOfPart } from './drive-queries'
import { DrivesNav } from './drives-nav'
import { FitMap } from './fit-map'
import { SayDialog, type Saying } from './say-dialog'
import { VerdictMark } from './verdict'

const SELECT = 'min-h-11 rounded-lg border border-ink/55 bg-paper px-3'

/** Compatibility from both ends: what fits this drive, and where a part goes; as a picture, as a table, and to be corrected. */
export function FitsScreen() {
  const form = useSheetForm()
  return (
    <Page name="What fits where" title="Drives" lead="What fits where, each with its reason and source. What the bench finds wrong is corrected in one step, and shown everywhere.">
      <DrivesNav />
      <Asked of={form} what="the levels">
        {(words) => <Both form={words} />}
      </Asked>
    </Page>
  )
}

function Both({ form }: { form: SheetForm }) {
  const [query, setQuery] = useSearchParams()
  const sheets = useSheets()
  const [saying, setSaying] = useState<Saying | null>(null)
  const variant = query.get('variant') ?? ''
  const level = query.get('level') ?? 'pickup'
  const code = query.get('code') ?? ''
  const unit = useFitsOfUnit(variant)
  const part = useHomesOfPart(level, code)
  const variants = (sheets.data ?? []).map((s) => s.drive.variant)
  return (
    <>
      <Panel title="At one level" aside="rows are drives, columns are parts">
        <label className="mb-3 flex flex-wrap items-center gap-3">
          <span className="font-semibold">Level</span>
          <select className={SELECT} value={level} onChange={(e) => setQuery({ level: e.target.value, ...(variant && { variant }) })}>
            {form.levels.map((l) => (
              <option key={l.id} value={l.id}>
                {l.name}
              </option>
            ))}
          </select>
        </label>
        <FitMap key={level} level={level} onPart={(c) => setQuery({ level, code: c })} />
      </Panel>
      {code && (
        <Panel title={`Where does ${code} go?`}>
          <Asked of={part} what="where it goes">
            {(found) => <FitTable fits={found.fits} by="variant" onSay={setSaying} said={found} />}
          </Asked>
        </Panel>
      )}
      <Panel title="What fits this drive?">
        <label className="mb-3 flex flex-wrap items-center gap-3">
          <span className="font-semibold">Drive</span>
          <select className={SELECT} value={variant} onChange={(e) => setQuery({ level, variant: e.target.value })}>
            <option value="">Choose…</option>
            {variants.map((v) => (
              <option key={v}>{v}</option>
            ))}
          </select>
        </label>
        {variant && (
          <Asked of={unit} what={`what fits ${variant}`}>
            {(found) => <FitTable fits={found.fits.filter((f) => f.verdict !== 'unknown')} by="part" onSay={setSaying} said={found} />}
          </Asked>
        )}
      </Panel>
      {saying && <SayDialog saying={saying} form={form} onClose={() => setSaying(null)} />}
    </>
  )
}

function FitTable({ fits, by, onSay, said }: { fits: Fit[]; by: 'variant' | 'part'; onSay: (saying: Saying) => void; said: Fits }) {
  const may = useMay('sheets')
  if (fits.length === 0) return <Notice title="Nobody has said anything yet">Write down what the bench finds: it is shown from then on.</Notice>
  return (
    <>
      <div className="relative overflow-x-auto">
      <table className="w-full text-left">
        <thead className="text-tiny text-quiet">
          <tr>
            <th className="py-1 font-normal">{by === 'part' ? 'Part' : 'Drive'}</th>
            <th className="font-normal">Verdict</th>
            <th className="font-normal">Why, and whose word</th>
            {may && <th className="sr-only">Correct it</th>}
          </tr>
        </thead>
        <tbody>
          {fits.map((f) => (
            <FitRow key={`${f.level} ${f.code} ${f.variant}`} fit={f} by={by} {...(may ? { onSay } : {})} />
          ))}
        </tbody>
      </table>
      </div>
      {said.sayings.length > 0 && (
        <details className="mt-3">
          <summary className="min-h-11 cursor-pointer text-quiet underline underline-offset-2">Everything that was said, newest first</summary>
          <ul className="divide-y divide-line">
            {said.sayings.map((s, n) => (
              <li key={n} className="py-1.5">
                <span className="figures">{s.code}</span> for <span className="figures">{s.variant}</span>: <b>{s.verdict_name}</b>
                {s.reason && `, ${s.reason}`}{' '}
                <span className="text-tiny text-quiet">
                  {s.source}; {s.by}, {s.on}
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  )
}

function FitRow({ fit: f, by, onSay }: { fit: Fit; by: 'variant' | 'part'; onSay?: (saying: Saying) => void }) {
  return (
    <tr className="border-t border-line align-top">
      <th scope="row" className="py-2 pr-3 font-normal">
        <span className="figures font-semibold">{by === 'part' ? f.code : f.variant}</span>
        {by === 'part' && <span className="block text-tiny text-quiet">{f.level_name}</span>}
      </th>
      <td className="py-2 pr-3">
        <span className="flex items-center gap-2 font-semibold whitespace-nowrap">
          <VerdictMark verdict={f.verdict} /> {f.verdict_name}
        </span>
      </td>
      <td className="max-w-[60ch] py-2 pr-3">
        {f.reasons.join('; ')}
        {f.transfers.length > 0 && <span className="block font-semibold">Moves across: {f.transfers.join('; ')}</span>}
        {f.shows.length > 0 && <span className="block">Works in: {f.shows.join(', ')}</span>}
        {f.source && <span className="block text-tiny text-quiet">{f.source}</span>}
      </td>
      {onSay && (
        <td className="py-1 text-right">
          <Button kind="quiet" onClick={() => onSay({ level: f.level, code: f.code, variant: f.variant, now: f.verdict })}>
            {f.verdict === 'fits' || f.verdict === 'transfers' ? 'It does not fit' : 'Say otherwise'}
          </Button>
        </td>
      )}
    </tr>
  )
}

import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { useMay } from '@/api/session'
import type { PartDetail } from '@/api/types'
import { dayOf } from '@/lib/dates'
import { money } from '@/lib/money'
import { functionWord } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { PrintLabels } from '@/ui/labels'
import { Chip, Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { CheckDialog } from './check-dialog'
import { CorrectDialog } from './correct-dialog'
import { FunctionMarks, Health, statesOf } from './health'
import { MinimumForm } from './minimum-form'
import { SizeForm } from './size-form'
import { ScrapDialog } from './scrap-dialog'
import { useCheckPart, usePart, useScrap } from './shelf-queries'

/** One tag of the shelf: what it is, what it was seen to do, where it fits, and everything that happened to it. */
export function PartScreen() {
  const { tag = '' } = useParams()
  const part = usePart(tag)
  return (
    <Asked of={part} what={tag}>
      {(found) => <PartView part={found} />}
    </Asked>
  )
}

function PartView({ part }: { part: PartDetail }) {
  const may = useMay('shelf')
  const check = useCheckPart(part.tag)
  const scrap = useScrap(part.tag)
  const [open, setOpen] = useState<'check' | 'scrap' | 'correct' | null>(null)
  const isOwners = part.owner_job !== ''
  return (
    <Page
      name={`Part ${part.tag}`}
      title={
        <>
          <span className="figures">{part.tag}</span> {part.name}
        </>
      }
      lead={
        <Link to="/shelf" className="inline-flex min-h-11 min-w-11 items-center underline underline-offset-2">
          The shelf
        </Link>
      }
      actions={
        <>
          <PrintLabels tags={[part.tag]}>Print its label</PrintLabels>
          {may && <Button onClick={() => setOpen('check')}>Write down what it does</Button>}
          {may && !isOwners && <Button onClick={() => setOpen('correct')}>Put right</Button>}
          {may && part.count > 0 && (
            <Button kind="quiet" onClick={() => setOpen('scrap')}>
              Throw away
            </Button>
          )}
        </>
      }
    >
      {isOwners && (
        <Notice tone="brass" title={`Belongs to the owner of ${part.owner_job}`}>
          {part.away_since ? 'It is out of its unit, and goes back before the unit does. It is never stock.' : 'It is back in its unit.'} <Link className="inline-flex min-h-11 items-center underline underline-offset-2" to={`/bench/${part.owner_job}`}>Open {part.owner_job}</Link>
        </Notice>
      )}
      <div className="grid gap-4 md:grid-cols-[minmax(0,1fr)_11rem]">
        <Panel>
          <Facts part={part} />
          {may && !isOwners && <KindForms part={part} />}
        </Panel>
        <Panel>
          <img src={`/api/labels/${part.tag}`} alt={`Code of ${part.tag}`} className="mx-auto w-full max-w-44 rounded bg-white p-1" />
        </Panel>
      </div>
      <Fits part={part} />
      <Trail part={part} />
      {open === 'check' && <CheckDialog title={`What does ${part.tag} do?`} functions={part.functions} check={check} onClose={() => setOpen(null)} />}
      {open === 'correct' && <CorrectDialog part={part} onClose={() => setOpen(null)} />}
      {open === 'scrap' && <ScrapDialog title={`Throw ${part.tag} away`} most={part.count} error={scrap.error} isBusy={scrap.isPending} onScrap={(count, why) => scrap.mutate({ count, why }, { onSuccess: () => setOpen(null) })} onClose={() => setOpen(null)} />}
    </Page>
  )
}

/** What the shop says of the kind: how many there should be, and a belt's size. */
function KindForms({ part }: { part: PartDetail }) {
  return (
    <>
      <MinimumForm level={part.level} code={part.code} />
      {part.level === 'belt' && <SizeForm key={`${part.around_mm} ${part.section_mm}`} part={part} />}
    </>
  )
}

function Trail({ part }: { part: PartDetail }) {
  return (
    <Panel title="What happened to it" aside="newest first">
      {part.checks.length > 0 && (
        <ul className="mb-3 divide-y divide-line">
          {part.checks.map((c, n) => (
            <li key={n} className="py-1">
              {functionWord(c.function)}: <b>{c.works ? 'works' : 'fails'}</b>
              {c.unit && `, in ${c.unit}`} <span className="text-tiny text-quiet">{`${c.by}, ${dayOf(c.at)}`}</span>
            </li>
          ))}
        </ul>
      )}
      <ul className="divide-y divide-line">
        {part.trail.map((m, n) => (
          <li key={n} className="py-1">
            {m.text} <span className="text-tiny text-quiet">{`${m.by}, ${dayOf(m.at)}`}</span>
          </li>
        ))}
      </ul>
    </Panel>
  )
}

function Facts({ part }: { part: PartDetail }) {
  return (
    <dl className="grid gap-x-6 gap-y-1.5 sm:grid-cols-[9rem_minmax(0,1fr)]">
      <dt className="text-quiet">Here</dt>
      <dd className="figures text-[1.3rem] leading-6 font-bold">{part.owner_job ? '–' : part.count}</dd>
      <dt className="text-quiet">What</dt>
      <dd>
        {part.level_name} <span className="figures">{part.code}</span>
        {part.is_complete && ', with what a bare one lacks'}
      </dd>
      {part.around_mm !== null && part.section_mm !== null && (
        <>
          <dt className="text-quiet">Size</dt>
          <dd className="figures">
            {part.around_mm} mm around, section {part.section_mm} mm
          </dd>
        </>
      )}
      <dt className="text-quiet">Lies</dt>
      <dd>{part.place || 'nobody wrote where'}</dd>
      {part.origin && (
        <>
          <dt className="text-quiet">Out of</dt>
          <dd>
            <Link to={`/shelf/donors/${part.origin}`} className="figures inline-flex min-h-11 min-w-11 items-center underline underline-offset-2">
              {part.origin}
            </Link>
          </dd>
        </>
      )}
      <dt className="text-quiet">A piece</dt>
      <dd className="figures">{part.piece_cents ? money(part.piece_cents) : '–'}</dd>
      <dt className="text-quiet">Known</dt>
      <dd className="space-y-1">
        <Health health={part.health} />
        <FunctionMarks functions={statesOf(part.functions, part.works, part.fails)} />
      </dd>
      {part.holders.length > 0 && <Holders holders={part.holders} />}
    </dl>
  )
}

function Holders({ holders }: Pick<PartDetail, 'holders'>) {
  return (
    <>
      <dt className="text-quiet">Taken</dt>
      <dd>
        {holders.map((h) => (
          <span key={h.job + h.at} className="block">
            for{' '}
            <Link to={`/bench/${h.job}`} className="figures inline-flex min-h-11 min-w-11 items-center underline underline-offset-2">
              {h.job}
            </Link>{' '}
            by {h.by}, {dayOf(h.at)}
          </span>
        ))}
      </dd>
    </>
  )
}

function Fits({ part }: { part: PartDetail }) {
  const fits = part.fits.filter((f) => f.verdict !== 'unknown' && f.source !== 'both sheets')
  const cannot = part.fits.filter((f) => f.source === 'both sheets').map((f) => f.variant)
  return (
    <Panel title="Where it fits" aside={<Link className="inline-flex min-h-11 min-w-11 items-center underline underline-offset-2" to={`/drives/fits?level=${part.level}&code=${encodeURIComponent(part.code)}`}>Look closer, or correct it</Link>}>
      {fits.length === 0 && <p className="text-quiet">No sheet and nobody names this part: it is not offered to any job.</p>}
      <ul className="divide-y divide-line">
        {fits.map((f) => (
          <li key={f.variant} className="py-1.5">
            <Link to={`/drives/${f.variant}`} className="figures font-semibold inline-flex min-h-11 min-w-11 items-center underline underline-offset-2">
              {f.variant}
            </Link>{' '}
            <Chip tone={f.verdict === 'no' ? 'danger' : f.verdict === 'fits' || f.verdict === 'transfers' ? 'clear' : 'brass'}>{f.verdict_name}</Chip> {f.reasons.join('; ')}
          </li>
        ))}
      </ul>
      {cannot.length > 0 && (
        <p className="mt-2 text-quiet">
          Cannot fit, by what both drives are: <span className="figures">{cannot.join(', ')}</span>
        </p>
      )}
    </Panel>
  )
}

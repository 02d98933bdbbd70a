import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { useMay } from '@/api/session'
import type { DonorDetail } from '@/api/types'
import { dayOf } from '@/lib/dates'
import { text } from '@/lib/fields'
import { money } from '@/lib/money'
import { FUNCTION_WORDS, functionWord } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { FieldsDialog, TextInput } from '@/ui/form-dialog'
import { PrintLabels } from '@/ui/labels'
import { Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { CheckDialog } from './check-dialog'
import { DonorPlan } from './donor-plan'
import { FunctionMarks } from './health'
import { ScrapDialog } from './scrap-dialog'
import { useCheckDonor, useDonor, useHarvest, useScrapDonor } from './shelf-queries'

type Piece = DonorDetail['pieces'][number]

/** One donor, taken apart on paper: which piece is good for what, and what is gone. */
export function DonorScreen() {
  const { tag = '' } = useParams()
  const donor = useDonor(tag)
  return (
    <Asked of={donor} what={tag}>
      {(found) => <DonorView donor={found} />}
    </Asked>
  )
}

function DonorView({ donor }: { donor: DonorDetail }) {
  const may = useMay('shelf') && !donor.is_scrapped
  const check = useCheckDonor(donor.tag)
  const scrap = useScrapDonor(donor.tag)
  const [open, setOpen] = useState<'check' | 'scrap' | Piece | null>(null)
  return (
    <Page
      name={`Donor ${donor.tag}`}
      title={
        <>
          <span className="figures">{donor.tag}</span> donor <span className="figures">{donor.variant}</span>
        </>
      }
      lead={
        <>
          <Link to="/shelf/donors" className="underline underline-offset-2">
            All donors
          </Link>{' '}
          · {donor.origin || 'nobody wrote where from'} · {donor.place || 'no place'}
          {donor.bought_cents > 0 && ` · paid ${money(donor.bought_cents)}`}
        </>
      }
      actions={
        <>
          <PrintLabels tags={[donor.tag]}>Print its label</PrintLabels>
          {may && <Button onClick={() => setOpen('check')}>Write down what it does</Button>}
          {may && (
            <Button kind="quiet" onClick={() => setOpen('scrap')}>
              Throw away
            </Button>
          )}
        </>
      }
    >
      {donor.is_scrapped && <Notice title="Thrown away">Nothing of it is offered any more. What was harvested keeps its origin.</Notice>}
      <Panel className="overflow-x-auto">
        <DonorPlan donor={donor} />
      </Panel>
      <Panel title="Piece by piece">
        <ul className="divide-y divide-line">
          {donor.pieces.map((p) => (
            <PieceRow key={p.level} piece={p} {...(may ? { onHarvest: () => setOpen(p) } : {})} />
          ))}
        </ul>
      </Panel>
      <SeenToDo donor={donor} />
      {open === 'check' && <CheckDialog title={`What does ${donor.tag} do?`} functions={Object.keys(FUNCTION_WORDS)} check={check} onClose={() => setOpen(null)} />}
      {open === 'scrap' && <ScrapDialog title={`Throw ${donor.tag} away`} most={1} error={scrap.error} isBusy={scrap.isPending} onScrap={(_, why) => scrap.mutate({ why, level: '' }, { onSuccess: () => setOpen(null) })} onClose={() => setOpen(null)} />}
      {open !== null && typeof open === 'object' && <HarvestDialog donor={donor} piece={open} onClose={() => setOpen(null)} />}
    </Page>
  )
}

function PieceRow({ piece: p, onHarvest }: { piece: Piece; onHarvest?: () => void }) {
  return (
    <li className="grid items-center gap-x-4 gap-y-1 py-1.5 sm:grid-cols-[12rem_minmax(0,1fr)_auto]">
      <span className={p.gone ? 'text-quiet' : ''}>
        <b>{p.level_name}</b> <span className="figures text-tiny">{p.code}</span>
      </span>
      {p.gone ? <span className="text-quiet">{p.gone}</span> : <FunctionMarks functions={p.functions} />}
      {onHarvest && !p.gone && p.level !== 'drive' && (
        <Button onClick={onHarvest} aria-label={`Harvest the ${p.level_name.toLowerCase()}`}>
          Harvest
        </Button>
      )}
    </li>
  )
}

function SeenToDo({ donor }: { donor: DonorDetail }) {
  return (
    <Panel title="What it was seen to do" aside="newest first">
      {donor.checks.length === 0 && <p className="text-quiet">Nobody has tried it yet: every piece counts as untested.</p>}
      <ul className="divide-y divide-line">
        {donor.checks.map((c, n) => (
          <li key={n} className="py-1">
            {functionWord(c.function)}: <b>{c.works ? 'works' : 'fails'}</b>
            {c.unit && `, in ${c.unit}`} <span className="text-tiny text-quiet">{`${c.by}, ${dayOf(c.at)}`}</span>
          </li>
        ))}
        {donor.trail.map((m, n) => (
          <li key={`m${n}`} className="py-1">
            {m.text} <span className="text-tiny text-quiet">{`${m.by}, ${dayOf(m.at)}`}</span>
          </li>
        ))}
      </ul>
    </Panel>
  )
}

const PUT = z.object({ place: text(BOUNDS.HarvestIn.place) })

function HarvestDialog({ donor, piece, onClose }: { donor: DonorDetail; piece: Piece; onClose: () => void }) {
  const harvest = useHarvest(donor.tag)
  const navigate = useNavigate()
  return (
    <FieldsDialog
      title={`Harvest the ${piece.level_name.toLowerCase()} of ${donor.tag}`}
      note="Mains out, strap on. It gets a tag of its own and keeps its origin and what it was seen to do."
      act="Put it on the shelf"
      schema={PUT}
      start={{ place: '' }}
      error={harvest.error}
      isBusy={harvest.isPending}
      onSend={(said) => harvest.mutate({ level: piece.level, ...said }, { onSuccess: (part) => void navigate(`/shelf/parts/${part.tag}`) })}
      onClose={onClose}
    >
      <FunctionMarks functions={piece.functions} />
      <TextInput name="place" label="Where it will lie" maxLength={BOUNDS.HarvestIn.place.maxLength} />
    </FieldsDialog>
  )
}

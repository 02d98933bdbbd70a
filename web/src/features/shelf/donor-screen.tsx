import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { useMay } from '@/api/session'
import type { DonorDetail } from '@/api/types'
import { dayOf } from '@/lib/dates'
import { money } from '@/lib/money'
import { FUNCTION_WORDS, functionWord } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { TextField } from '@/ui/field'
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
      <Panel>
        <DonorPlan donor={donor} />
      </Panel>
      <Panel title="Piece by piece">
        <ul className="divide-y divide-line">
          {donor.pieces.map((p) => (
            <li key={p.level} className="grid items-center gap-x-4 gap-y-1 py-1.5 sm:grid-cols-[12rem_minmax(0,1fr)_auto]">
              <span className={p.gone ? 'text-quiet' : ''}>
                <b>{p.level_name}</b> <span className="figures text-tiny">{p.code}</span>
              </span>
              {p.gone ? <span className="text-quiet">{p.gone}</span> : <FunctionMarks functions={p.functions} />}
              {may && !p.gone && p.level !== 'drive' && (
                <Button onClick={() => setOpen(p)} aria-label={`Harvest the ${p.level_name.toLowerCase()}`}>
                  Harvest
                </Button>
              )}
            </li>
          ))}
        </ul>
      </Panel>
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
      {open === 'check' && <CheckDialog title={`What does ${donor.tag} do?`} functions={Object.keys(FUNCTION_WORDS)} check={check} onClose={() => setOpen(null)} />}
      {open === 'scrap' && <ScrapDialog title={`Throw ${donor.tag} away`} most={1} error={scrap.error} isBusy={scrap.isPending} onScrap={(_, why) => scrap.mutate({ why, level: '' }, { onSuccess: () => setOpen(null) })} onClose={() => setOpen(null)} />}
      {open !== null && typeof open === 'object' && <HarvestDialog donor={donor} piece={open} onClose={() => setOpen(null)} />}
    </Page>
  )
}

function HarvestDialog({ donor, piece, onClose }: { donor: DonorDetail; piece: Piece; onClose: () => void }) {
  const harvest = useHarvest(donor.tag)
  const navigate = useNavigate()
  const [place, setPlace] = useState('')
  return (
    <Dialog title={`Harvest the ${piece.level_name.toLowerCase()} of ${donor.tag}`} open onClose={onClose} note="Mains out, strap on. It gets a tag of its own and keeps its origin and what it was seen to do.">
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault()
          harvest.mutate({ level: piece.level, place: place.trim() }, { onSuccess: (part) => void navigate(`/shelf/parts/${part.tag}`) })
        }}
      >
        <FunctionMarks functions={piece.functions} />
        <TextField label="Where it will lie" value={place} maxLength={60} onChange={(e) => setPlace(e.target.value)} />
        {harvest.error && (
          <Notice tone="danger" title="Not harvested" role="alert">
            {harvest.error.message}
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={harvest.isPending}>
          Put it on the shelf
        </Button>
      </form>
    </Dialog>
  )
}

import { lazy, Suspense, useState } from 'react'
import type { Quote } from '@/api/types'
import { useMay } from '@/api/session'
import { dayOf, timeOf } from '@/lib/dates'
import { centsOf, money, moneySign } from '@/lib/money'
import { curesBriefly, minutes, percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Choice, TextField } from '@/ui/field'
import { Chip, Notice, Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { Gate } from '../frame/gate'
import { Levels } from '../parts/levels'
import { BeforeOrdering } from './before-ordering'
import { EndDialog } from './end-dialog'

const OwnerPagePanel = lazy(async () => ({ default: (await import('./owner-page')).OwnerPagePanel }))

/** What is proposed, what it costs and how likely it helps; and what the owner said. */
export function AgreeMat() {
  const { job } = useBench()
  const { agree } = job
  const mayAgree = useMay('agree')
  const over = agree.proposal ? agree.proposal.total_cents - agree.agreed_cents : 0
  return (
    <>
      <OwnerAsks />
      <Panel title="Proposed to the owner">
        {agree.proposal && (
          <>
            <p className="text-[1.3rem] font-bold">
              {agree.proposal.name} <span className="figures">{money(agree.proposal.total_cents)}</span>
            </p>
            {agree.proposal.repair && (
              <p className="mt-1 max-w-[70ch]">
                By all findings so far it cures the unit in {percent(agree.proposal.p_success)} of cases like this
                {agree.proposal.p_lasts_year !== null && <>, and {percent(agree.proposal.p_lasts_year)} are still well after a year</>}. If it does not, the next step is proposed anew; what was spent on
                looking is the shop&apos;s own risk.
              </p>
            )}
            <p className="mt-2">
              {over > 0 ? (
                <Chip tone="brass" className="text-[1rem]!">
                  {money(over)} over the {money(agree.agreed_cents)} agreed so far: ask first
                </Chip>
              ) : (
                <Chip tone="clear" className="text-[1rem]!">
                  within the {money(agree.agreed_cents)} agreed so far
                </Chip>
              )}
            </p>
            {agree.needs_consent && (
              <div className="mt-2">
                <Notice tone="brass" title="Needs consent whatever it costs">
                  {agree.needs_consent}
                </Notice>
              </div>
            )}
          </>
        )}
      </Panel>
      <Consent key={job.version} over={over} />
      {mayAgree && (
        <Suspense>
          <OwnerPagePanel />
        </Suspense>
      )}
      <Offers />
      <BeforeOrdering />
      <Panel title="Levels compared">
        <Levels />
      </Panel>
      <Gate backTo={['isolate']} />
    </>
  )
}

/** What the owner wrote besides yes and no waits for somebody of the shop. */
function OwnerAsks() {
  const { job } = useBench()
  if (!job.owner_asks) return null
  return (
    <Notice tone="brass" title={job.owner_asks} role="status">
      Answer it by another proposal, or tell the owner and write that down under Owner and papers.
    </Notice>
  )
}

function Consent({ over }: { over: number }) {
  const { job, send, isBusy } = useBench()
  const mayAgree = useMay('agree')
  const total = job.agree.proposal?.total_cents ?? 0
  const [name, setName] = useState(job.owner_name)
  const [how, setHow] = useState('')
  const [amount, setAmount] = useState((total / 100).toFixed(2))
  const cents = centsOf(amount)
  const say = (isAgreed: boolean) => {
    if (cents !== null) send({ do: 'consent', is_agreed: isAgreed, amount_cents: cents, by_name: name, how }, isAgreed ? 'Owner agreed' : 'Owner did not agree')
  }
  return (
    <Panel title="What the owner said" aside={job.owner_contact}>
      {job.agree.consents.length > 0 && (
        <ul className="mb-3 divide-y divide-line">
          {job.agree.consents.map((c) => (
            <li key={c.at} className="py-1.5">
              <Chip tone={c.is_agreed ? 'clear' : 'danger'}>{c.is_agreed ? 'agreed' : 'did not agree'}</Chip> {c.by_name}, {money(c.amount_cents)}, {c.how}
              <span className="text-tiny text-quiet">
                {' '}
                · {dayOf(c.at)} {timeOf(c.at)}, written down by {c.recorded_by}
              </span>
            </li>
          ))}
        </ul>
      )}
      {mayAgree && (
        <form onSubmit={(event) => event.preventDefault()}>
          <div className="grid gap-3 md:grid-cols-3">
            <TextField label="Who said it" value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
            <TextField label={`Up to, ${moneySign()}`} inputMode="decimal" value={amount} onChange={(e) => setAmount(e.target.value)} error={cents === null ? 'Write an amount, as 45 or 45.50.' : undefined} />
            <Choice
              label="How"
              value={how}
              onChange={setHow}
              choices={[
                { id: 'at the counter', label: 'Counter' },
                { id: 'by phone', label: 'Phone' },
                { id: 'in writing', label: 'Writing' },
              ]}
            />
          </div>
          <div className="mt-3 flex flex-wrap gap-2">
            <Button onClick={() => say(true)} disabled={isBusy || !how || !name.trim() || cents === null}>
              Record: agrees
            </Button>
            <Button onClick={() => say(false)} disabled={isBusy || !how || !name.trim() || cents === null}>
              Record: does not agree
            </Button>
            {over <= 0 && <p className="self-center text-quiet">Not needed for the money: it is within what was agreed.</p>}
          </div>
        </form>
      )}
    </Panel>
  )
}

function Offers() {
  const { job, send, isBusy, mayWork } = useBench()
  const [isEnding, setEnding] = useState(false)
  const others = job.agree.offers.filter((o) => o.repair !== job.agree.proposal?.repair)
  return (
    <Panel title="Other ways" level={3}>
      <ul className="divide-y divide-line">
        {others.map((o) => (
          <li key={o.repair} className="grid items-center gap-x-4 gap-y-2 py-2 sm:grid-cols-[minmax(0,1fr)_auto]">
            <span className="min-w-0">
              <b>{o.name}</b>
              <span className="block text-tiny text-quiet">{said(o)}</span>
            </span>
            <span className="flex items-center gap-3">
              <span className="figures text-[1.1rem] font-bold">{money(o.total_cents)}</span>
              {mayWork && (
                <Button disabled={isBusy} onClick={() => send({ do: 'propose', repair: o.repair }, `Propose: ${o.name}`)}>
                  Propose this
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {mayWork && <ByChoice />}
      {mayWork && (
        <Button kind="quiet" disabled={isBusy} onClick={() => setEnding(true)}>
          End it without a repair
        </Button>
      )}
      {isEnding && <EndDialog onClose={() => setEnding(false)} />}
    </Panel>
  )
}

/** What nobody advises: it takes away from what keeps people safe, and is refused where nothing would be left. */
function ByChoice() {
  const { job, send, isBusy } = useBench()
  const mine = job.repairs.filter((r) => r.alters && r.id !== job.agree.proposal?.repair)
  if (mine.length === 0) return null
  return (
    <details className="mt-1">
      <summary className="min-h-11 cursor-pointer content-center text-quiet underline underline-offset-2">Nobody advises these: a bridged lid switch</summary>
      <ul className="divide-y divide-line">
        {mine.map((r) => (
          <li key={r.id} className="grid items-center gap-x-4 gap-y-2 py-2 sm:grid-cols-[minmax(0,1fr)_auto]">
            <span>
              <b>{r.name}</b>
              <span className="block max-w-[70ch] text-danger">{r.alters}</span>
            </span>
            <Button disabled={isBusy} onClick={() => send({ do: 'propose', repair: r.id }, `Propose: ${r.name}`)}>
              Propose it all the same
            </Button>
          </li>
        ))}
      </ul>
    </details>
  )
}

const said = (o: Quote): string =>
  `${minutes(o.labour_min)} in and out ${money(o.labour_cents)}, part ${money(o.part_cents)}, ${o.wait_days > 0 ? `wait ${Math.round(o.wait_days)} days, ` : ''}${curesBriefly(o.p_success, o.p_lasts_year)}, ${o.guarantee_days} days guarantee${o.alters_unit ? ', a stopgap' : ''}`

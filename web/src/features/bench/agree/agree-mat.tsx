import { lazy, Suspense, useState } from 'react'
import { useMay } from '@/api/session'
import { dayOf, timeOf } from '@/lib/dates'
import { centsOf, money, moneySign } from '@/lib/money'
import { percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Choice, TextField } from '@/ui/field'
import { Chip, Notice, Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { Gate } from '../frame/gate'
import { BeforeOrdering } from './before-ordering'
import { OtherWays } from './other-ways'

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
      <OtherWays />
      <BeforeOrdering />
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

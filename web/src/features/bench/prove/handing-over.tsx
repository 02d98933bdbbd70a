import { useState } from 'react'
import { useMay } from '@/api/session'
import { centsOf, money } from '@/lib/money'
import { Button } from '@/ui/button'
import { Choice, TextField } from '@/ui/field'
import { Chip, Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import type { AskOf } from '../frame/asks'
import { useMatKeys } from '../frame/mat-keys'
import { Told } from '../owner/told'

type Tender = AskOf<'take_payment'>['how']
const TENDERS: readonly { id: Tender; label: string }[] = [
  { id: 'cash', label: 'Cash' },
  { id: 'card', label: 'Card' },
  { id: 'transfer', label: 'Transfer' },
]

/** Told, paid, fetched: what is left when the work is done. */
export function HandingOver() {
  const { job } = useBench()
  const mayHandBack = useMay('hand_back')
  return (
    <Panel title="Told, paid, fetched">
      <div className="grid gap-5 lg:grid-cols-2">
        <Told />
        {mayHandBack && (
          <div className="space-y-5">
            <Payment />
            {job.stage === 'closed' ? job.collected_by && <p>Fetched by {job.collected_by}.</p> : <Collection />}
          </div>
        )}
      </div>
    </Panel>
  )
}

function Payment() {
  const { job, send, isBusy } = useBench()
  const due = job.agree.proposal?.total_cents ?? 0
  const [typed, setTyped] = useState((due / 100).toFixed(2))
  const [how, setHow] = useState<Tender | ''>('')
  const cents = centsOf(typed)
  return (
    <form
      aria-label="Paid"
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (cents !== null && how !== '') send({ do: 'take_payment', cents, how }, `Paid in all: ${money(cents)}`)
      }}
    >
      <h3 className="font-bold">
        Paid {job.paid ? <Chip tone={job.paid.cents >= due ? 'clear' : 'brass'}>{`${money(job.paid.cents)} by ${job.paid.how}`}</Chip> : <span className="font-normal text-quiet">nothing yet, {money(due)} agreed</span>}
      </h3>
      <Choice label="How" choices={TENDERS} value={how} onChange={(id) => setHow(id as Tender)} />
      {how !== '' && (
        <div className="flex flex-wrap items-end gap-2">
          <div className="w-36">
            <TextField label="In all" inputMode="decimal" value={typed} error={cents === null ? 'An amount like 24.50.' : undefined} onChange={(e) => setTyped(e.target.value)} />
          </div>
          <Button type="submit" kind="act" disabled={isBusy || cents === null}>
            Paid
          </Button>
        </div>
      )}
    </form>
  )
}

function Collection() {
  const { job, send, isBusy } = useBench()
  const [name, setName] = useState(job.collected_by || job.owner_name)
  const by_name = name.trim()
  const isSaid = job.collected_by !== '' && job.collected_by === by_name
  const isOff = isBusy || by_name === ''
  const mayStay = job.agree.proposal?.repair === '' && !isSaid // it may be left here for parts: which of the two is said by hand
  const collect = isOff || isSaid ? undefined : () => send({ do: 'collect', by_name }, `Fetched by ${by_name}`)
  const isAllThatIsLeft = !mayStay && job.missing.map((m) => m.code).join() === 'collected'
  useMatKeys('answers', { Enter: isAllThatIsLeft ? collect : undefined })
  return (
    <form
      aria-label="Fetched"
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        collect?.()
      }}
    >
      <div className="min-w-48 flex-1">
        <TextField label="Fetched by" value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
      </div>
      <Button type="submit" kind="act" hotkey={isAllThatIsLeft && !isSaid ? 'Enter' : undefined} disabled={isOff || isSaid}>
        {isSaid ? 'Written down' : 'Has come for it'}
      </Button>
      {mayStay && (
        <Button disabled={isOff} onClick={() => send({ do: 'leave_unit', by_name }, `Left here for parts by ${by_name}`)}>
          Leaves it here for parts
        </Button>
      )}
    </form>
  )
}

import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { useWhoName } from '@/api/session'
import type { Job } from '@/api/types'
import { timeOf } from '@/lib/dates'
import { words } from '@/lib/fields'
import { useKeys } from '@/lib/use-keys'
import { useMoment } from '@/lib/use-moment'
import { Button } from '@/ui/button'
import { FieldsDialog, TextInput } from '@/ui/form-dialog'
import { useBench } from './bench-context'

type Hold = Job['hazards'][number]

/** What keeps the power off now: what passes by itself goes when its minute has come. */
export function useHolds(): readonly Hold[] {
  const { job } = useBench()
  const until = job.hazards.flatMap((h) => (h.until ? [Date.parse(h.until)] : []))
  const now = useMoment(until)
  return job.hazards.filter((h) => !h.until || Date.parse(h.until) > now)
}

/** What a hold barred can be done once it has passed: what was computed before that minute is fetched anew. */
function useNewsOfWhatPassed(standing: number): void {
  const { job } = useBench()
  const cache = useQueryClient()
  const has = job.hazards.length
  useEffect(() => {
    if (standing < has) void cache.invalidateQueries({ queryKey: ['job', job.tag] })
  }, [standing, has, job.tag, cache])
}

/** The holds on the power, on every mat, with what clears each; lifting one by hand takes a name and a reason. */
export function Holds() {
  const holds = useHolds()
  useNewsOfWhatPassed(holds.length)
  if (holds.length === 0) return null
  return (
    <section aria-label="Mains stays out" role="alert" className="rounded-xl border-2 border-danger bg-paper px-4 py-2.5">
      <h2 className="text-[1.1rem] font-bold text-danger">Mains stays out</h2>
      <ul className="divide-y divide-line">
        {holds.map((h, n) => (
          <HoldRow key={h.code} hold={h} isFirst={n === 0} />
        ))}
      </ul>
    </section>
  )
}

const { by_name, why } = BOUNDS.LiftHoldAsk
const LIFT = z.object({ by_name: words(by_name), why: words(why) })

function HoldRow({ hold, isFirst }: { hold: Hold; isFirst: boolean }) {
  const { send, isBusy, mayWork } = useBench()
  const me = useWhoName()
  const [isLifting, setLifting] = useState(false)
  useKeys({ a: isFirst && mayWork && !isBusy ? () => setLifting(true) : undefined })
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1.5 py-1.5">
      <span className="min-w-64 flex-1">
        {hold.text} {hold.until && <b>Dry at {timeOf(hold.until)}.</b>}
      </span>
      {mayWork && (
        <span className="flex flex-wrap gap-2">
          {hold.clears && (
            <Button disabled={isBusy} onClick={() => send({ do: 'clear_hold', code: hold.code }, hold.clears)}>
              {hold.clears}
            </Button>
          )}
          <Button kind="quiet" hotkey={isFirst ? 'A' : undefined} disabled={isBusy} onClick={() => setLifting(true)}>
            Lift it by hand
          </Button>
        </span>
      )}
      {isLifting && (
        <FieldsDialog
          title="Lift this hold by hand"
          note={`${hold.text} Name and reason stay on the tape.`}
          act="Lift it"
          schema={LIFT}
          start={{ by_name: me, why: '' }}
          isBusy={isBusy}
          onSend={(said) => {
            send({ do: 'lift_hold', code: hold.code, ...said }, `Hold lifted: ${said.why}`)
            setLifting(false)
          }}
          onClose={() => setLifting(false)}
        >
          <TextInput name="by_name" label="Who lifts it" maxLength={by_name.maxLength} />
          <TextInput name="why" label="Why it is safe" hint="What was seen or measured." maxLength={why.maxLength} />
        </FieldsDialog>
      )}
    </li>
  )
}

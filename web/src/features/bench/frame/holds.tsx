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

/** Those that bar still: what passes by itself goes when its minute has come. */
function useOpen(holds: readonly Hold[]): readonly Hold[] {
  const now = useMoment(holds.flatMap((h) => (h.until ? [Date.parse(h.until)] : [])))
  return holds.filter((h) => !h.until || Date.parse(h.until) > now)
}

/** What keeps the power off now. */
export const useHolds = (): readonly Hold[] => useOpen(useBench().job.hazards)

/** What keeps a hand out, or a start from counting, now. */
export const useWaits = (): readonly Hold[] => useOpen(useBench().job.waits)

/** The charge that keeps hands out of the unit, where something is done inside it. */
export function useHandsOut(isInside: boolean): Hold | undefined {
  const waits = useWaits()
  return isInside ? waits.find((w) => w.bars === 'opening') : undefined
}

/** What a hold barred can be done once it has passed: what was computed before that minute is fetched anew. */
function useNewsOfWhatPassed(standing: number): void {
  const { job } = useBench()
  const cache = useQueryClient()
  const has = job.hazards.length + job.waits.length
  useEffect(() => {
    if (standing < has) void cache.invalidateQueries({ queryKey: ['job', job.tag] })
  }, [standing, has, job.tag, cache])
}

/** The holds on the power and on the hands, on every mat, with what clears each. */
export function Holds() {
  const holds = useHolds()
  const waits = useWaits()
  useNewsOfWhatPassed(holds.length + waits.length)
  const { job } = useBench()
  const isDone = job.stage === 'closed' || (job.stage === 'hand_back' && job.depth === 0) // no hand goes into a unit that leaves
  const hands = isDone ? [] : waits.filter((h) => h.bars === 'opening')
  return (
    <>
      <Strip title="Mains stays out" look="border-danger" ink="text-danger" holds={holds} first={holds[0]} />
      <Strip title="Hands stay out" look="border-brass" ink="text-brass" holds={hands} first={holds[0] ?? hands[0]} />
    </>
  )
}

interface StripProps {
  title: string
  look: string
  ink: string
  holds: readonly Hold[]
  /** The one that its key lifts. */
  first: Hold | undefined
}

function Strip({ title, look, ink, holds, first }: StripProps) {
  const { mayWork } = useBench()
  if (holds.length === 0) return null
  return (
    <section aria-label={title} role="alert" className={`rounded-xl border-2 bg-paper px-4 py-2.5 ${look}`}>
      <h2 className={`text-[1.1rem] font-bold ${ink}`}>{title}</h2>
      <ul className="divide-y divide-line">
        {holds.map((h) => (
          <li key={h.code} className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1.5 py-1.5">
            <span className="min-w-64 flex-1">
              {h.text} {h.until && <b>{endsAt(h)}.</b>}
            </span>
            {mayWork && (
              <span className="flex flex-wrap gap-2">
                {h.clears && <Clear hold={h} hotkey={h.bars === 'opening' ? 'E' : undefined} />}
                <LiftHold hold={h} hotkey={h === first ? 'A' : undefined} />
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Charge remains where the hand would go: when it is over, and how to be sure sooner. In a dialog the strip is out of reach, and its test stands here. */
export function HandsOut({ hold, inDialog = false }: { hold: Hold; inDialog?: boolean }) {
  return (
    <div className="mb-2 flex w-fit flex-wrap items-center gap-3 rounded-lg border border-brass/45 bg-brass-soft px-3 py-2 font-semibold">
      Charge remains: {hold.until && `hands in at ${timeOf(hold.until)}, or `}once it was measured{!inDialog && ' (E)'}.{inDialog && <Clear hold={hold} hotkey="E" inDialog />}
    </div>
  )
}

/** The test that clears a hold was done. Only the measured charge has a key: what keeps the power off is cleared by a hand that read it. */
function Clear({ hold, hotkey, inDialog = false }: { hold: Hold; hotkey: 'E' | undefined; inDialog?: boolean }) {
  const { send, isBusy } = useBench()
  const clear = () => send({ do: 'clear_hold', code: hold.code }, hold.clears)
  useKeys({ e: hotkey && !isBusy ? clear : undefined }, { inDialog })
  return (
    <Button hotkey={hotkey} disabled={isBusy} onClick={clear}>
      {hold.clears}
    </Button>
  )
}

const ENDS: Record<string, string> = { wet: 'Dry', charge: 'Over', cold: 'Cold', warm: 'Warm' }

/** When a hold has passed by itself, in words: "Dry at 14:32". */
export const endsAt = (h: Hold): string => `${ENDS[h.code] ?? 'Over'} at ${timeOf(h.until ?? '')}`

const { by_name, why } = BOUNDS.LiftHoldAsk
const LIFT = z.object({ by_name: words(by_name), why: words(why) })

/** Lifts a hold by hand: with a name and a reason, both on the tape. */
export function LiftHold({ hold, hotkey }: { hold: Hold; hotkey?: 'A' | undefined }) {
  const { send, isBusy, mayWork } = useBench()
  const me = useWhoName()
  const [isLifting, setLifting] = useState(false)
  useKeys({ a: hotkey && mayWork && !isBusy ? () => setLifting(true) : undefined })
  return (
    <>
      <Button kind="quiet" hotkey={hotkey} disabled={isBusy} onClick={() => setLifting(true)}>
        Lift it by hand
      </Button>
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
    </>
  )
}

import { useState } from 'react'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import type { Job } from '@/api/types'
import { words } from '@/lib/fields'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { FieldsDialog, TextInput } from '@/ui/form-dialog'
import { useBench } from '../frame/bench-context'
import { LiftHold, useHandsOut, useHolds } from '../frame/holds'
import { Now, Progress, Verdict, type Wait } from './verdict'

type Check = Job['proof']['checks'][number]

const secondsOf = (typed: string): number => Number(typed.replace(',', '.'))

/** One check; where it is done several times, try by try or all at once. */
export function Try({ check: c, wait, onLater }: { check: Check; wait: Wait | undefined; onLater?: () => void }) {
  const { send, mayWork } = useBench()
  const [typed, setTyped] = useState('')
  const [isLeaving, setLeaving] = useState(false)
  const left = c.tries - c.done
  const isTimed = Number.isFinite(secondsOf(typed)) && secondsOf(typed) > 0
  const say = (isPassed: boolean, isAll: boolean) =>
    send({ do: 'check', check: c.id, is_passed: isPassed, is_all: isAll, seconds: isTimed ? secondsOf(typed) : null }, `${isPassed ? 'Good' : 'Failed'}: ${c.title}`)
  const all = left > 1 ? { says: `All ${left} were good`, key: '3', act: () => say(true, true) } : undefined
  const leave = c.may_be_left ? { says: 'It cannot be tried', key: '4', act: () => setLeaving(true) } : undefined
  return (
    <Now title={c.title} how={c.how}>
      {c.tries > 1 && <Progress done={c.done} of={c.tries} what="good" />}
      {c.is_timed && (
        <div className="mb-2 max-w-xs">
          <TextField
            label="Seconds until it plays"
            hint={`${c.reference_s === null ? 'Nobody knows yet what is usual here: five proven units tell.' : `Healthy units take about ${Math.round(c.reference_s)} s.`} Empty if nobody timed it.`}
            inputMode="decimal"
            value={typed}
            error={typed && !isTimed ? 'A number of seconds.' : undefined}
            onChange={(e) => setTyped(e.target.value)}
          />
        </div>
      )}
      {wait && mayWork && <Waiting wait={wait} onLater={onLater} />}
      <Verdict good={c.tries > 1 ? 'One was good' : 'Works'} bad={c.tries > 1 ? 'It failed' : 'Fails'} onGood={() => say(true, left === 1)} onBad={() => say(false, true)} more={all ?? leave} wait={wait} />
      {isLeaving && <LeaveOut check={c} onClose={() => setLeaving(false)} />}
    </Now>
  )
}

/** What else can be done than wait. A strip above has the key of its own hold. */
function Waiting({ wait, onLater }: { wait: Wait; onLater: (() => void) | undefined }) {
  const isAlone = useHolds().length === 0
  const hands = useHandsOut(true)
  return (
    <div className="mb-2 flex flex-wrap gap-2">
      {onLater && <Button onClick={onLater}>Do the rest first</Button>}
      <LiftHold hold={wait} hotkey={isAlone && !hands ? 'A' : undefined} />
    </div>
  )
}

const { why } = BOUNDS.LeaveCheckAsk
const LEAVE = z.object({ why: words(why) })

function LeaveOut({ check, onClose }: { check: Check; onClose: () => void }) {
  const { send, isBusy } = useBench()
  return (
    <FieldsDialog
      title={`Not tried: ${check.title}`}
      note="The reason stands on the tape and on the owner's report."
      act="Leave it out"
      schema={LEAVE}
      start={{ why: 'the owner took it along' }}
      isBusy={isBusy}
      onSend={(said) => {
        send({ do: 'leave_check', check: check.id, ...said }, `Not tried: ${check.title}`)
        onClose()
      }}
      onClose={onClose}
    >
      <TextInput name="why" label="Because" maxLength={why.maxLength} />
    </FieldsDialog>
  )
}

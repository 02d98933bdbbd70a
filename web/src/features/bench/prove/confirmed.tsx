import { useState } from 'react'
import { percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Choice } from '@/ui/field'
import { Chip, Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import type { AskOf } from '../frame/asks'
import { useMatKeys } from '../frame/mat-keys'

type Known = AskOf<'confirm_cause'>['by']
const KNOWN_BY: readonly { by: Known; key: string; label: string }[] = [
  { by: 'seen', key: '1', label: 'Seen with the eye on the part' },
  { by: 'measured', key: '2', label: 'Measured on the part' },
  { by: 'fault_followed', key: '3', label: 'The old part put back brought it back' },
  { by: 'not_known', key: '4', label: 'Not known for certain' },
]
const NO_CAUSE = 'nothing_wrong'
const NOT_LISTED = 'not_listed'
const OFFERED = 6

/** The cause, once it works again: one press, and worth ten jobs that only worked again. */
export function Confirmed() {
  const { job, mayWork } = useBench()
  const said = job.proof.confirmed
  const [isOpen, setOpen] = useState(false)
  if (!mayWork || job.stage !== 'hand_back') return null
  return (
    <Panel title="What was it?" aside="one confirmed cause teaches as much as ten jobs that only worked again">
      {said && !isOpen ? (
        <div className="flex flex-wrap items-center justify-between gap-2">
          <p>
            <Chip tone={said.fault ? 'clear' : 'plain'}>{said.fault ? 'Confirmed' : 'Not known for certain'}</Chip> {said.fault && job.proof.cause}
          </p>
          <Button onClick={() => setOpen(true)}>Say it otherwise</Button>
        </div>
      ) : (
        <Asking onSaid={() => setOpen(false)} />
      )}
    </Panel>
  )
}

function Asking({ onSaid }: { onSaid: () => void }) {
  const { job, send, isBusy } = useBench()
  const suspects = job.diagnosis.suspects.filter((s) => s.id !== NO_CAUSE && s.id !== NOT_LISTED).slice(0, OFFERED)
  const [fault, setFault] = useState(job.proof.confirmed?.fault || suspects[0]?.id || '')
  const choices = [...suspects.map((s) => ({ id: s.id, label: `${s.name}, ${percent(s.p)}`, name: s.name })), { id: NOT_LISTED, label: 'Something that is not on the list', name: 'something that is not on the list' }]
  const name = choices.find((c) => c.id === fault)?.name ?? ''
  const say = (by: Known, label: string) => () => {
    send({ do: 'confirm_cause', by, fault: by === 'not_known' ? '' : fault }, by === 'not_known' ? 'Cause not known for certain' : `Cause confirmed: ${name}, ${label.toLowerCase()}`)
    onSaid()
  }
  useMatKeys('answers', Object.fromEntries(KNOWN_BY.map((k) => [k.key, isBusy ? undefined : say(k.by, k.label)])))
  return (
    <div className="space-y-3">
      <Choice label="It was" choices={choices} value={fault} onChange={setFault} />
      <div>
        <p className="mb-1 font-semibold">I know by</p>
        <div className="grid gap-1.5 sm:grid-cols-2">
          {KNOWN_BY.map((k) => (
            <Button key={k.by} kind="answer" hotkey={k.key} disabled={isBusy || (fault === '' && k.by !== 'not_known')} onClick={say(k.by, k.label)}>
              {k.label}
            </Button>
          ))}
        </div>
      </div>
    </div>
  )
}

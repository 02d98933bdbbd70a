import { useState } from 'react'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Bar } from './bar'
import { useBench } from './bench-context'
import { useMatKeys } from './mat-keys'

/** What is missing before this stage can be left, or the button that leaves it. */
export function Gate({ backTo = [] }: { backTo?: readonly string[] }) {
  const { job, send, isBusy } = useBench()
  const isOpen = job.missing.length === 0
  const says = job.stage === 'hand_back' ? 'Hand it over, close the job' : `Go on to ${job.next_stage}`
  const go = () => send({ do: 'advance', stage: job.stage }, says)
  const { hasEnter } = useMatKeys('gate', { Enter: isOpen ? go : undefined })
  const onward = (
    <Button kind="act" className={hasEnter ? 'min-h-14! text-[1.25rem]' : ''} hotkey={hasEnter ? 'Enter' : undefined} onClick={go} disabled={isBusy}>
      {says}
    </Button>
  )
  return (
    <section aria-label="Going on" className="flex flex-wrap items-start justify-between gap-3 rounded-xl border border-line bg-paper/85 px-4 py-3">
      {isOpen ? (
        <>
          <p className="py-2">Everything that this stage needs is there.</p>
          {hasEnter ? <Bar>{onward}</Bar> : onward}
        </>
      ) : (
        <div>
          <h2 className="font-bold">Before this can go on</h2>
          <ul className="mt-1 list-disc pl-5">
            {job.missing.map((m) => (
              <li key={m.code}>{m.text}</li>
            ))}
          </ul>
        </div>
      )}
      {backTo.length > 0 && <GoBack to={backTo} />}
    </section>
  )
}

function GoBack({ to }: { to: readonly string[] }) {
  const { job, send, isBusy, mayWork } = useBench()
  const name = (stage: string) => job.stages.find((s) => s.id === stage)?.name ?? stage
  const [why, setWhy] = useState('')
  if (!mayWork) return null
  return (
    <details className="w-full">
      <summary className="min-h-11 w-fit content-center text-quiet underline underline-offset-2">Go back a stage</summary>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <div className="min-w-64 flex-1">
          <TextField label="Why?" value={why} maxLength={120} onChange={(e) => setWhy(e.target.value)} />
        </div>
        {to.map((stage) => (
          <Button key={stage} disabled={isBusy || why.trim() === ''} onClick={() => send({ do: 'go_back', to: stage as never, why }, `Go back to ${name(stage)}`)}>
            Back to {name(stage)}
          </Button>
        ))}
      </div>
    </details>
  )
}

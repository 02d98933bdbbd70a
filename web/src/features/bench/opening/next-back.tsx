import { Button } from '@/ui/button'
import { useBench } from '../frame/bench-context'
import { endsAt, useHandsOut } from '../frame/holds'
import { BeforeAndNow } from '../photos/before-and-now'
import { Looks } from './looks'

/** What puts back the next thing that is open, if anything is; and that the unit is shut where its sheets say nothing of it. */
export function useShutting(): { says: string; act: (() => void) | undefined } {
  const { job, send, mayWork, isBusy } = useBench()
  const next = job.mat.next_back
  const hands = useHandsOut(next !== null)
  const mayAct = mayWork && !isBusy && !hands
  if (hands) return { says: `Charge remains: ${endsAt(hands)}`, act: undefined }
  if (next) return { says: `Back: ${next.name}`, act: mayAct ? () => send({ do: 'open_step', step: next.step, is_open: false, turned_to: next.turn_to }, `Back: ${next.name}`) : undefined }
  return { says: 'It is closed up', act: mayAct ? () => send({ do: 'depth', depth: 0 }, 'Closed up') : undefined }
}

/** The step that goes back next, with what is looked at: a flex left out here is the third opening. */
export function NextBack({ onMat }: { onMat: () => void }) {
  const { job } = useBench()
  const next = job.mat.next_back
  if (!next) return null
  return (
    <section aria-label="Back in order" aria-live="polite" className="rounded-xl border-[1.5px] border-ink bg-paper px-4.5 py-3.5">
      <p className="text-quiet">{job.mat.left === 1 ? 'The last one' : `${job.mat.left} to put back`}</p>
      <h2 className="text-[1.7rem] leading-tight font-bold">Back: {next.name}</h2>
      {next.turn_to && <p className="text-[1.1rem]">Turn it: {next.turn_to} up.</p>}
      <Looks texts={next.checks} />
      <BeforeAndNow of={next.step} />
      <Button className="mt-2" hotkey="C" onClick={onMat}>
        The mat: every screw and step
      </Button>
    </section>
  )
}

import { Button } from '@/ui/button'
import type { Procedure } from '@/api/types'
import { minutes } from '@/lib/words'
import { useBench } from '../frame/bench-context'
import { BeforeAndNow } from '../photos/before-and-now'
import { TakePhoto } from '../photos/take-photo'
import { Looks } from './looks'
import { SheetsPicture } from './sheets-picture'
import { useUnitMat, type MatStep, type MoveOn } from './mat-queries'

interface Undone {
  step: MatStep
  move: MoveOn
  left: number
  minutes: number
}

/** The next thing that is undone on the way to a step's depth, where the sheets say how the unit is opened. */
function useMoveIn(depth: number): Undone | null {
  const { job } = useBench()
  const { data } = useUnitMat(job, depth > 0 ? `depth_${depth}` : '')
  const move = depth > 0 && job.mat.has_order ? data?.way_in.moves[0] : undefined
  const step = data?.steps.find((s) => s.id === move?.step)
  return move && step && data ? { step, move, left: data.way_in.moves.length, minutes: data.way_in.minutes } : null
}

/** What does it, and its name; nothing for a step that opens nothing, or that no sheet knows. */
export function useNextIn(of: Procedure['steps'][number] | undefined): { says: string; act: (() => void) | undefined } | null {
  const { send, mayWork, isBusy } = useBench()
  const next = useMoveIn(of?.opens_to ?? 0)
  if (!next || next.step.ways.length > 0) return null // of several ways one is chosen, on the mat
  const act = () => send({ do: 'open_step', step: next.step.id, is_open: true, turned_to: next.move.turn_to }, `Opened: ${next.step.name}`)
  return { says: `Open: ${next.step.name}`, act: mayWork && !isBusy ? act : undefined }
}

/** The way to a step's depth, one thing at a time: what to know, the photo before it, how much is left. */
export function NextIn({ depth }: { depth: number }) {
  const { openMat } = useBench()
  const next = useMoveIn(depth)
  if (!next) return null
  const { step, move } = next
  return (
    <section aria-label="Opened next" aria-live="polite" className="mt-1">
      <p className="text-[1.65rem] leading-tight font-bold">
        {step.name} <span className="text-base font-normal text-quiet">{next.left === 1 ? 'the last one' : `${next.left} to open, about ${minutes(next.minutes)}`}</span>
      </p>
      {move.turn_to && (
        <p className="text-[1.1rem]">
          <b>Turn it:</b> {move.turn_to} up.{' '}
          {move.falls.length > 0 && <span className="text-brass">Hold or tape first, it falls out: {move.falls.join('; ')}.</span>}
        </p>
      )}
      <Looks texts={step.looks} />
      <SheetsPicture step={step} />
      {step.photo_first && (
        <>
          <BeforeAndNow of={step.id} />
          <TakePhoto of={step.id} moment="before" label="Photo before" />
        </>
      )}
      {step.ways.length > 0 && <p className="text-brass">Shops do this in {step.ways.length} ways: pick yours on the mat.</p>}
      <Button className="mt-2" hotkey="C" onClick={() => openMat()}>
        The mat: every screw and step
      </Button>
    </section>
  )
}

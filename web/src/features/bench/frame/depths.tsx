import { Button } from '@/ui/button'
import { DepthPad } from '@/ui/depth-pad'
import { useBench } from './bench-context'

export const DEPTHS = ['Closed up', 'Cover off', 'Drive open', 'Deck out'] as const

/** How far the unit is open: steps set it, and a hand can. */
export function Depths() {
  const { job, send, isBusy, mayWork, openMat } = useBench()
  const { mat } = job
  // what lies open is put back step by step, each with its look: the mat shows them
  const set = (n: number) => {
    if (n < job.depth && mat.left > 0) openMat({ isBack: true })
    else if (n !== job.depth) send({ do: 'depth', depth: n }, DEPTHS[n]!)
  }
  return (
    <fieldset>
      <DepthPad names={DEPTHS} now={job.depth} isDisabled={isBusy || !mayWork} onSet={set} />
      {mat.has_order && (
        <Button hotkey="C" onClick={() => openMat()} className="mt-1.5 w-full justify-between px-2.5!">
          {mat.left > 0 ? `Mat: ${mat.left} ${mat.left === 1 ? 'step' : 'steps'} open` : 'Open it step by step'}
        </Button>
      )}
      {job.wet.length > 0 && <p className="mt-1.5 rounded-md bg-brass-soft px-2 py-1 text-tiny text-brass">Wetted with cleaner: {job.wet.join(', ').toLowerCase()}. Dry before the mains is live.</p>}
    </fieldset>
  )
}

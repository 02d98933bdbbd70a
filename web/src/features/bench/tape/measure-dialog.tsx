import type { ReactNode } from 'react'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { useBench } from '../frame/bench-context'

/** What was measured, and for which question of the drive. */
interface Kept {
  tool: string
  inputs: Record<string, unknown>
  about: string
  question: string
  headline: string
}
export type MeasureProp = (at: { tag: string; question: string; power: string; onKeep: (kept: Kept) => void }) => ReactNode

/** A number from a meter, or one of the bench's calculators: what comes of it goes on the tape. */
export function MeasureDialog({ measure, question, onWithout, onClose }: { measure: MeasureProp; question: string; onWithout: () => void; onClose: () => void }) {
  const { job, send } = useBench()
  const keep = ({ tool, inputs, about, question: answers, headline }: Kept) => {
    send({ do: 'measure', tool, inputs, about, question: answers }, headline)
    onClose()
  }
  return (
    <Dialog title="Measure" open isWide onClose={onClose}>
      {measure({ tag: job.tag, question, power: job.power, onKeep: keep })}
      <Button kind="quiet" className="mt-3" onClick={onWithout}>
        Log a reading without its number
      </Button>
    </Dialog>
  )
}

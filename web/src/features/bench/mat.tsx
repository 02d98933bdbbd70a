import type { ReactNode } from 'react'
import type { Drive, Job, Suspect } from '@/api/types'
import { useMay } from '@/api/session'
import { AgreeMat } from './agree/agree-mat'
import { useBench } from './frame/bench-context'
import type { SaveNotes } from './frame/asks'
import { Gate } from './frame/gate'
import { HandBackMat } from './prove/hand-back-mat'
import { IsolateMat } from './isolate/isolate-mat'
import { ProveMat } from './prove/prove-mat'
import { RepairMat } from './repair/repair-mat'
import { SeenMat } from './seen/seen-mat'

interface Props {
  plan: (drive: Drive, parts: readonly Suspect[]) => ReactNode
  counter: (job: Job, onSave: SaveNotes) => ReactNode
  onTrial: (repair: string) => void
  onPart: () => void
}

/** The work of the stage that the job is in. */
export function Mat({ plan, counter, onTrial, onPart }: Props) {
  const { job } = useBench()
  switch (job.stage) {
    case 'taken_in':
      return <TakenInMat counter={counter} />
    case 'fault_seen':
      return <SeenMat />
    case 'isolate':
      return <IsolateMat plan={plan} onTrial={onTrial} onPart={onPart} />
    case 'agree':
      return <AgreeMat />
    case 'repair':
      return <RepairMat onTrial={onTrial} />
    case 'prove':
      return <ProveMat />
    default:
      return <HandBackMat />
  }
}

function TakenInMat({ counter }: Pick<Props, 'counter'>) {
  const { job, send } = useBench()
  const mayTakeIn = useMay('take_in')
  return (
    <>
      <Gate />
      {mayTakeIn && counter(job, (notes) => send({ do: 'amend', ...notes }, "The counter's notes"))}
    </>
  )
}

import type { Job } from '@/api/types'
import { useKeys } from '@/lib/use-keys'
import { MainsPlug } from '@/ui/mains-plug'
import { useBench } from './bench-context'
import { useHolds } from './holds'
import { useMains } from './mains'

const SAYS = { out: 'Mains out', standby: 'Standby: plug in', live: 'Mains live' } satisfies Record<Job['power'], string>

/** The mains state, always in sight; set by hand here or by a step. */
export function MainsSwitch() {
  const { job } = useBench()
  const holds = useHolds()
  const isOut = job.power === 'out'
  const isHeld = holds.length > 0 && isOut
  const toggle = useMains()(isOut ? 'live' : 'out')
  const said = isHeld ? 'Mains held out' : SAYS[job.power]
  useKeys({ l: toggle })
  return <MainsPlug said={said} isOut={isOut} title={isHeld ? holds[0]?.text : undefined} label={isHeld ? said : `${said}: set to ${isOut ? 'live' : 'out'}`} onToggle={toggle} />
}

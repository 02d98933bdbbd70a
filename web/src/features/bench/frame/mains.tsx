import type { Job } from '@/api/types'
import { Button } from '@/ui/button'
import { useBench } from './bench-context'
import { useHolds } from './holds'

type Wanted = 'live' | 'out'

/** What the mains is, in a sentence: "It is on standby". */
export const MAINS_IS = { out: 'out', standby: 'on standby', live: 'live' } satisfies Record<Job['power'], string>

/** True if the mains is not in the state that a step or a question needs. */
export const isOff = ({ mains }: { mains: string }, job: Job): boolean => (mains === 'live' || mains === 'out') && job.power !== mains

/** Says that the mains is in a state now; nothing where it cannot be said: no right to, something on its way, or power held back. */
export function useMains(): (to: Wanted) => (() => void) | undefined {
  const { send, isBusy, mayWork } = useBench()
  const isHeld = useHolds().length > 0
  return (to) => {
    if (!mayWork || isBusy || (to === 'live' && isHeld)) return undefined
    return () => send({ do: 'mains', state: to }, to === 'live' ? 'Mains live' : 'Mains out')
  }
}

/** The button that says it. */
export function MainsButton({ to, ...more }: { to: Wanted; hotkey?: string; className?: string }) {
  const say = useMains()(to)
  return (
    <Button onClick={say} disabled={!say} {...more}>
      {to === 'live' ? 'Mains is live now' : 'Plug is pulled: mains out'}
    </Button>
  )
}

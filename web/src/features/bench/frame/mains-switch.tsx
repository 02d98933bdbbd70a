import type { Job } from '@/api/types'
import { useKeys } from '@/lib/use-keys'
import { TopBarEnd } from '@/ui/top-bar-end'
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
  return (
    <TopBarEnd>
      <button
        type="button"
        onClick={toggle}
        disabled={!toggle}
        title={isHeld ? holds[0]?.text : undefined}
        aria-label={isHeld ? said : `${said}: set to ${isOut ? 'live' : 'out'}`}
        className={`inline-flex min-h-11 items-center gap-2 rounded-lg px-2.5 font-bold whitespace-nowrap md:px-3.5 ${!isOut ? 'bg-[#a5221c] text-[#fbfaf5]' : 'bg-[#f3e6bf] text-[#1c2b2a]'}`}
      >
        <svg viewBox="0 0 18 18" className="size-4.5" fill="none" stroke="currentColor" strokeWidth="1.9" aria-hidden="true">
          <path d="M6 2v4M12 2v4M4 6h10v3a5 5 0 0 1-10 0zM9 14v3" />
          {isOut && <path d="M2 16L16 2" />}
        </svg>
        <span>
          {said.startsWith('Mains ') && <span className="max-md:sr-only">Mains </span>}
          <span className="max-md:first-letter:uppercase">{said.replace('Mains ', '')}</span>
        </span>
      </button>
    </TopBarEnd>
  )
}

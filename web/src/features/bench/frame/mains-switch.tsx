import { useKeys } from '@/lib/use-keys'
import { TopBarEnd } from '@/ui/top-bar-end'
import { useBench } from './bench-context'
import { useHolds } from './holds'

/** The mains state, always in sight; set by hand here or by a step. */
export function MainsSwitch() {
  const { job, send, isBusy, mayWork } = useBench()
  const holds = useHolds()
  const isHeld = holds.length > 0 && job.power !== 'live'
  const toggle = () => send({ do: 'mains', state: job.power === 'live' ? 'out' : 'live' }, job.power === 'live' ? 'Mains out' : 'Mains live')
  useKeys({ l: mayWork && !isHeld ? toggle : undefined })
  return (
    <TopBarEnd>
      <button
        type="button"
        onClick={toggle}
        disabled={isBusy || !mayWork || isHeld}
        title={isHeld ? holds[0]?.text : undefined}
        aria-label={job.power === 'live' ? 'Mains live: set to out' : isHeld ? 'Mains held out' : 'Mains out: set to live'}
        className={`inline-flex min-h-10 items-center gap-2 rounded-lg px-3.5 font-bold ${job.power === 'live' ? 'bg-[#a5221c] text-[#fbfaf5]' : 'bg-[#f3e6bf] text-[#1c2b2a]'}`}
      >
        <svg viewBox="0 0 18 18" className="size-4.5" fill="none" stroke="currentColor" strokeWidth="1.9" aria-hidden="true">
          <path d="M6 2v4M12 2v4M4 6h10v3a5 5 0 0 1-10 0zM9 14v3" />
          {job.power !== 'live' && <path d="M2 16L16 2" />}
        </svg>
        {job.power === 'live' ? 'Mains live' : isHeld ? 'Mains held out' : 'Mains out'}
      </button>
    </TopBarEnd>
  )
}

import { Link } from 'react-router'
import { promise } from '@/lib/dates'
import { money } from '@/lib/money'
import { minutes } from '@/lib/words'
import { Button } from '@/ui/button'
import { useBench } from '../frame/bench-context'
import { Depths } from '../frame/depths'
import type { Job } from '@/api/types'

interface Props {
  onIdentify: () => void
  onTakeOut: () => void
  onOwner: () => void
  onPhotos: () => void
  onSounds: () => void
}

/** The unit's tag, its way through the house, and what the owner said. */
export function Stub({ onIdentify, onTakeOut, onOwner, onPhotos, onSounds, others = [] }: Props & { others?: readonly string[] }) {
  const { job, mayWork } = useBench()
  return (
    <aside aria-label="The unit" className="flex flex-col gap-4 border-line bg-paper p-3.5 max-lg:border-b lg:w-51 lg:shrink-0 lg:overflow-y-auto lg:border-r">
      <UnitCard />
      {others.length > 0 && (
        <p role="status" className="rounded-md bg-brass-soft px-2 py-1 text-tiny text-brass">
          Also here: {others.join(', ')}
        </p>
      )}
      <ol className="max-lg:flex max-lg:flex-wrap max-lg:gap-x-4" aria-label="Stages">
        {job.stages.map((s, n) => (
          <li key={s.id} className="relative flex gap-3 pb-2.5" aria-current={s.state === 'now' ? 'step' : undefined}>
            {n < job.stages.length - 1 && <span aria-hidden="true" className="absolute top-5 bottom-0 left-2.5 w-px bg-line max-lg:hidden" />}
            <Notch state={s.state} />
            <span className="leading-tight">
              <span className={s.state === 'now' ? 'font-bold' : s.state === 'ahead' ? 'text-quiet' : ''}>{s.name}</span>
              {s.state === 'done' && <span className="sr-only"> (done)</span>}
              <span className="block text-tiny text-quiet">{stageNote(job, s.id)}</span>
            </span>
          </li>
        ))}
      </ol>
      <Depths />
      <div className="flex flex-col gap-1.5 max-lg:flex-row max-lg:flex-wrap">
        <Button hotkey="D" onClick={onOwner} className="justify-between px-2.5!">
          Owner and papers
        </Button>
        <Button hotkey="H" onClick={onPhotos} className="justify-between px-2.5!">
          {job.photos.length > 0 ? `Photos: ${job.photos.length}` : 'Photos'}
        </Button>
        <Button hotkey="S" onClick={onSounds} className="justify-between px-2.5!">
          {job.sounds > 0 ? `Sounds: ${job.sounds}` : 'Sounds'}
        </Button>
        {mayWork && job.stage !== 'closed' && (
          <>
          <Button hotkey="I" onClick={onIdentify} className="justify-between px-2.5!">
            Which drive is it?
          </Button>
          <Button hotkey="O" onClick={onTakeOut} className="justify-between px-2.5!">
            Take an own part out
          </Button>
          </>
        )}
      </div>
      <blockquote className="border-l-3 border-line pl-2.5 text-quiet italic">“{job.complaint || 'No complaint written down yet'}”</blockquote>
      <p className="text-tiny text-quiet wrap-anywhere">
        {job.owner_name}
        <br />
        {job.owner_contact || 'no contact yet'}
      </p>
    </aside>
  )
}

/** Its tag as it hangs on the unit: which console, which drive, and whether it came back. */
function UnitCard() {
  const { job } = useBench()
  const { drive } = job
  return (
    <div className="relative rounded-lg border-[1.5px] border-ink p-3">
      <span aria-hidden="true" className="absolute top-2 right-2 size-3.5 rounded-full border border-ink bg-mat" />
      <h1 className="figures text-[1.35rem] leading-tight font-bold">{job.tag}</h1>
      <p className="font-semibold">
        {drive.maker} {drive.console}
      </p>
      <p className="text-tiny">
        Revision {drive.revision} · {drive.family} load
      </p>
      <p className="text-tiny">
        Drive{' '}
        <Link to={`/drives/${drive.variant}`} className="figures underline underline-offset-2">
          {drive.variant}
        </Link>
      </p>
      {job.returns && (
        <p className="mt-1 rounded-md bg-brass-soft px-2 py-1 text-tiny text-brass">
          Came back after{' '}
          <Link to={`/bench/${job.returns.tag}`} className="figures font-semibold underline underline-offset-2">
            {job.returns.tag}
          </Link>
          {job.returns.is_covered ? ': the same fault, inside its guarantee. The owner pays nothing.' : ': not covered.'}
        </p>
      )}
    </div>
  )
}

function Notch({ state }: { state: 'done' | 'now' | 'ahead' }) {
  const look = { done: 'fill-verdigris stroke-verdigris', now: 'fill-ember-soft stroke-ember', ahead: 'fill-paper stroke-line' }[state]
  return (
    <svg viewBox="0 0 22 16" className="mt-0.5 h-4 w-5.5 shrink-0" aria-hidden="true">
      <ellipse cx="11" cy="8" rx="9" ry="5.6" strokeWidth="2" className={look} />
      {state === 'done' && <path d="M7.4 8l2.5 2.4 4.6-4.8" fill="none" stroke="var(--paper)" strokeWidth="1.9" />}
      {state === 'now' && <circle cx="11" cy="8" r="1.8" className="fill-ember" />}
    </svg>
  )
}

function stageNote(job: Job, stage: string): string {
  if (stage === 'isolate' && job.stage === 'isolate') return `${minutes(job.bench_min)} of looking so far`
  if (stage === 'agree') return job.limit_cents === null ? 'no limit yet' : `may spend ${money(job.limit_cents)} unasked`
  if (stage !== 'hand_back') return ''
  return job.promised_on ? `promised ${promise(job.promised_on, new Date())}` : 'no promise yet'
}

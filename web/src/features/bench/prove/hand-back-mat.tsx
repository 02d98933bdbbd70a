import { Link } from 'react-router'
import { useMay } from '@/api/session'
import { dayOf } from '@/lib/dates'
import { percent } from '@/lib/words'
import { money } from '@/lib/money'
import { FileLink } from '@/ui/file-link'
import { Notice, Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { Gate } from '../frame/gate'
import { PhotosForOwner } from '../photos/for-owner'
import { Button } from '@/ui/button'
import { Confirmed } from './confirmed'
import { HandingOver } from './handing-over'

/** What the owner gets: the report on one page, and the unit. */
export function HandBackMat() {
  const { job } = useBench()
  const isRepaired = job.proof.p_fixed > 0
  return (
    <>
      <Panel title={job.stage === 'closed' ? 'Handed back' : 'Ready to hand back'} aside={money(job.agree.proposal?.total_cents ?? 0)}>
        <dl className="grid gap-x-6 gap-y-1.5 sm:grid-cols-[9rem_minmax(0,1fr)]">
          <dt className="text-quiet">Outcome</dt>
          <dd className="font-semibold">{job.proof.outcome}{job.agree.proposal?.repair && `: ${job.agree.proposal.name}`}</dd>
          <dt className="text-quiet">Cause</dt>
          <dd>
            {job.proof.cause} {job.proof.p_cause > 0 && <span className="figures">({percent(job.proof.p_cause)})</span>}
          </dd>
          {isRepaired && (
            <>
              <dt className="text-quiet">Cured</dt>
              <dd>
                with <span className="figures">{percent(job.proof.p_fixed)}</span>, after {job.proof.passes} clean passes
              </dd>
            </>
          )}
        </dl>
        <p className="mt-4">
          <FileLink href={`/api/jobs/${job.tag}/report.pdf`} isShown>
            Open the report for the owner (PDF)
          </FileLink>
        </p>
      </Panel>
      {isRepaired && <Confirmed />}
      <PhotosForOwner />
      <HandingOver />
      {job.stage === 'closed' ? <Closed /> : <Gate backTo={['isolate']} />}
    </>
  )
}

/** A closed job is only read: what comes back opens a new one. */
function Closed() {
  const { job, send, isBusy } = useBench()
  const mayTakeIn = useMay('take_in')
  if (job.voided)
    return (
      <Notice tone="brass" title="Taken in by mistake">
        <p>{job.voided}</p>
        {mayTakeIn && (
          <Button className="mt-2" disabled={isBusy} onClick={() => send({ do: 'unvoid' }, 'No mistake: the job stands again')}>
            It was no mistake: let it stand again
          </Button>
        )}
      </Notice>
    )
  return (
    <Notice title="This job is closed">
      <p>Its tape stays. {job.guarantee_until ? `Its guarantee runs until ${dayOf(job.guarantee_until)}.` : 'It has no guarantee.'}</p>
      {mayTakeIn && (
        <Link to={`/take-in?returns=${job.tag}`} className="mt-2 inline-flex min-h-11 items-center rounded-lg border border-ink/55 bg-paper px-3.5 hover:border-ink">
          It came back: take it in again
        </Link>
      )}
    </Notice>
  )
}

import { percent } from '@/lib/words'
import { money } from '@/lib/money'
import { Notice, Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { Gate } from '../frame/gate'

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
          <a href={`/api/jobs/${job.tag}/report.pdf`} target="_blank" rel="noreferrer" className="inline-flex min-h-11 items-center rounded-lg border border-ink px-4 font-semibold hover:bg-mat">
            Open the report for the owner (PDF)
          </a>
        </p>
      </Panel>
      {job.stage === 'closed' ? <Notice title="This job is closed">Its tape stays. A return opens a new job.</Notice> : <Gate backTo={['isolate']} />}
    </>
  )
}

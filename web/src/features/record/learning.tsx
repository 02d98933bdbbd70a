import { Link } from 'react-router'
import { useMay } from '@/api/session'
import { dayOf } from '@/lib/dates'
import { percent } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { LearntTable } from './learnt-table'
import { RecordNav } from './record-nav'
import { useLearning, useOtherSuspects, useStopLearnt, useUseLearnt, type Learning } from './record-queries'

type Part = Learning['parts'][number]
const PARTS: Record<Part['part'], { name: string; by: string }> = {
  causes: { name: 'How often each fault is the cause', by: 'the fault that it was' },
  repairs: { name: 'How often repairs cure, and parts are bad', by: 'whether the first repair cured' },
  pace: { name: 'How long repairs take here', by: 'the minutes that were taken' },
  looks: { name: 'How long looks take here', by: 'the minutes that were taken' },
  rows: { name: 'What faults look like', by: 'the fault that it was' },
  playing: { name: 'How long healthy units take to play', by: 'the next proven units' },
}

/** What the closed jobs teach: shown first, used by a press, taken back by another. */
export function LearningScreen() {
  const learning = useLearning()
  return (
    <Page title="What the jobs teach" lead="Closed jobs against the figures that came with the program. It counts once it is put to use.">
      <RecordNav />
      <Asked of={learning} what="what the jobs teach">
        {(found) => (found.jobs === 0 ? <Notice title="Nothing to learn from yet">Each job that closes teaches a little, most if its cause was confirmed at the hand-back. Two hundred are a good beginning.</Notice> : <Found learning={found} />)}
      </Asked>
    </Page>
  )
}

function Found({ learning }: { learning: Learning }) {
  return (
    <>
      <Panel title="In use" aside={`${learning.jobs} closed jobs, ${learning.confirmed} with a confirmed cause`}>
        <InUse learning={learning} />
        <ul className="mt-4 divide-y divide-line border-t border-line">
          {learning.parts.map((part) => (
            <Judged key={part.part} part={part} />
          ))}
        </ul>
        <p className="mt-2 max-w-[80ch] text-tiny text-quiet">Each job was judged by what was learnt before it, never by what it taught itself. The figure is how much less surprising it was than with what is in use (in nats), with its standard error; a part counts as better from two of those on. What was put to use before is judged by the jobs since then alone: it knows how the others came out.</p>
      </Panel>
      <OtherSuspects />
      <LearntTable rows={learning.rows} />
    </>
  )
}

function InUse({ learning }: { learning: Learning }) {
  const mayUse = useMay('shop')
  const [use, stop] = [useUseLearnt(), useStopLearnt()]
  const better = learning.parts.filter((p) => p.is_better)
  const used = learning.in_use
  const failed = use.error ?? stop.error
  const isBusy = use.isPending || stop.isPending
  return (
    <div className="space-y-3">
      {used ? (
        <p>
          <Chip tone="clear">Version {used.number}</Chip> of {dayOf(used.at)}, put to use by {used.by}, from {used.jobs} jobs: {used.parts.map((p) => PARTS[p].name.toLowerCase()).join('; ')}.
        </p>
      ) : (
        <p>Nothing that was learnt is in use: every bench reckons with the figures that came with the program.</p>
      )}
      {failed && (
        <Notice tone="danger" role="alert">
          {failed.message}
        </Notice>
      )}
      {mayUse && (
        <div className="flex flex-wrap gap-2">
          {better.length > 0 && (used === null || used.jobs !== learning.jobs) && (
            <Button kind="act" disabled={isBusy} onClick={() => use.mutate({ jobs: learning.jobs })}>
              {used ? `Use what ${learning.jobs} jobs teach` : 'Use what was learnt'}
            </Button>
          )}
          {used && (
            <Button disabled={isBusy} onClick={() => stop.mutate({})}>
              Take it back
            </Button>
          )}
        </div>
      )}
      {!mayUse && better.length > 0 && !used && <p className="text-quiet">The manager can put it to use.</p>}
    </div>
  )
}

function Judged({ part }: { part: Part }) {
  const { name, by } = PARTS[part.part]
  const isSame = part.gain === 0 && part.error === 0 // nothing of it was learnt yet
  const verdict = part.n <= 20 || isSame ? 'too few to say' : part.is_better ? 'better' : 'not better beyond doubt'
  return (
    <li className="grid items-baseline gap-x-4 gap-y-1 py-2.5 md:grid-cols-[minmax(0,1fr)_12rem_minmax(0,1.2fr)]">
      <span className="font-semibold">{name}</span>
      <span>
        <Chip tone={part.is_better ? 'clear' : 'plain'}>{verdict}</Chip>
      </span>
      <span className="text-quiet">
        <span className="figures whitespace-nowrap">
          {part.gain >= 0 ? '+' : '−'}
          {Math.abs(part.gain).toFixed(3)} ± {part.error.toFixed(3)}
        </span>{' '}
        a job, by {by}, over {part.n}
        {part.since_version ? ' since it was put to use' : ''}
      </span>
    </li>
  )
}

function OtherSuspects() {
  const found = useOtherSuspects()
  return (
    <Panel title="Open jobs that would get another first suspect">
      <Asked of={found} what="the open jobs">
        {({ jobs }) =>
          jobs.length === 0 ? (
            <p className="text-quiet">None: what would be used now leaves the first suspect of every open job where it is.</p>
          ) : (
            <ul className="divide-y divide-line">
              {jobs.map((job) => (
                <li key={job.tag} className="flex flex-wrap items-baseline gap-x-3 py-2">
                  <Link to={`/bench/${job.tag}`} className="inline-flex min-h-11 items-center font-semibold underline underline-offset-3">
                    {job.tag}
                  </Link>
                  <span className="text-quiet">{job.variant}</span>
                  <span>
                    {job.was} <span className="figures text-quiet">{percent(job.p_was)}</span> → <b>{job.now}</b> <span className="figures text-quiet">{percent(job.p_now)}</span>
                  </span>
                </li>
              ))}
            </ul>
          )
        }
      </Asked>
    </Panel>
  )
}

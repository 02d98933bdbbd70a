import { useState } from 'react'
import type { Job } from '@/api/types'
import { percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel } from '@/ui/panel'
import { Term } from '@/ui/term'
import { Bar } from '../frame/bar'
import { useBench } from '../frame/bench-context'
import { Gate } from '../frame/gate'
import { useWaits } from '../frame/holds'
import { MainsButton, useMains } from '../frame/mains'
import { MatKeys, useMatKeys } from '../frame/mat-keys'
import { NextBack, useShutting } from '../opening/next-back'
import { OnTheAccount } from './on-the-account'
import { Try } from './try'
import { Now, Progress, Verdict } from './verdict'

type Check = Job['proof']['checks'][number]
type Said = Job['proof']

/** The same baseline again, the profile of the drive, and as many clean passes as the odds ask for. */
export function ProveMat() {
  const { job, openMat } = useBench()
  const codes = job.missing.map((m) => m.code)
  if (job.agree.proposal?.repair === '')
    return (
      <MatKeys enter={codes.length > 0 ? 'proof' : 'gate'} digits="proof">
        <Notice title="Nothing to prove">The unit goes back as it is. Close it, pull the plug, and go on.</Notice>
        <NextBack onMat={() => openMat()} />
        <Finish codes={codes} />
        <Gate backTo={['isolate']} />
      </MatKeys>
    )
  return (
    <MatKeys enter={codes.length > 0 ? 'proof' : 'gate'} digits="proof">
      <Proof proof={job.proof} codes={codes} />
      <Gate backTo={['isolate', 'repair']} />
    </MatKeys>
  )
}

/** What is left once everything is proven: shut, and unplugged. */
function Finish({ codes }: { codes: readonly string[] }) {
  const { job, mayWork } = useBench()
  const setMains = useMains()
  const isOpen = codes.includes('closed')
  const wants = job.power === 'live' ? 'out' : null
  const shutting = useShutting()
  const act = wants ? setMains('out') : isOpen ? shutting.act : undefined
  useMatKeys('proof', { Enter: act })
  if (!mayWork || (!wants && !isOpen)) return null
  return (
    <Bar>
      {wants ? (
        <MainsButton to="out" hotkey="Enter" className="min-h-14! text-[1.25rem]" />
      ) : (
        <Button kind="act" hotkey="Enter" className="min-h-14! text-[1.25rem]" onClick={shutting.act} disabled={!shutting.act}>
          {shutting.says}
        </Button>
      )}
    </Bar>
  )
}

/** What is tried next. What has to wait waits while the rest is done; but a cold start comes before the power is on, unless somebody would rather do the rest. */
function useNext(checks: readonly Check[], needsPasses: boolean, isRestFirst: boolean) {
  const { job } = useBench()
  const waits = useWaits()
  const waitOf = (c: Check | undefined) => waits.find((w) => w.bars === c?.waits_for)
  const open = checks.filter((c) => c.state === 'open')
  const ready = open.find((c) => !waitOf(c))
  const cold = job.power === 'live' ? undefined : open.find((c) => c.waits_for === 'cold start' && waitOf(c))
  const next = (isRestFirst ? undefined : cold) ?? ready ?? (needsPasses ? undefined : open[0])
  return { next, wait: waitOf(next), isLater: next !== undefined && next === cold && ready !== undefined }
}

function Proof({ proof, codes }: { proof: Said; codes: readonly string[] }) {
  const { openMat } = useBench()
  const [isRestFirst, setRestFirst] = useState(false)
  const { next, wait, isLater } = useNext(proof.checks, codes.includes('passes'), isRestFirst)
  const needsPasses = !next && codes.includes('passes')
  const passed = proof.checks.filter((c) => c.state === 'passed').length
  return (
    <>
      <NextBack onMat={() => openMat()} />
      {next ? <Try key={`${next.id} ${next.done}`} check={next} wait={wait} {...(isLater ? { onLater: () => setRestFirst(true) } : {})} /> : needsPasses ? <Pass key={proof.passes} proof={proof} /> : <Finish codes={codes} />}
      <Panel title="The proof so far" aside={`cured with ${percent(proof.p_fixed)}`}>
        <Progress done={passed} of={proof.checks.length} what="checks passed" />
        <Progress done={proof.passes} of={proof.passes_needed} what="clean passes in a row" />
        <p className="mt-1.5 max-w-[70ch] text-quiet">
          <Term word="pass" says="A pass" /> is one whole way. The fault showed in about {percent(proof.p_fail_per_try)} of tries; so many clean passes in a row make it 95 in 100 sure that it is gone. U takes the last one back.
        </p>
        {proof.verdict === 'probable' && (
          <Notice tone="brass" title="Probable is a valid end">
            {proof.says}
          </Notice>
        )}
        <Checks checks={proof.checks} next={next} />
        <OnTheAccount said={proof.account} />
      </Panel>
    </>
  )
}

const SEVERAL = 5

function Pass({ proof }: { proof: Said }) {
  const { send } = useBench()
  const left = proof.passes_needed - proof.passes
  const say = (count: number) => send({ do: 'pass', is_clean: true, count }, count === 1 ? 'Clean pass' : `${count} clean passes`)
  const more = left > 1 ? Math.min(left, SEVERAL) : 0
  return (
    <Now title={`The whole way once more: ${left} to go`} how="From insert to play and out again, as in the baseline.">
      <Verdict
        good="One clean pass"
        bad="It failed"
        onGood={() => say(1)}
        onBad={() => send({ do: 'pass', is_clean: false }, 'Pass failed')}
        more={more ? { says: `${more} clean passes`, key: '3', act: () => say(more) } : undefined}
      />
    </Now>
  )
}

/** Every check with how it came out, on demand. */
function Checks({ checks, next }: { checks: readonly Check[]; next: Check | undefined }) {
  const [isShown, setShown] = useState(false)
  const failed = checks.filter((c) => c.state === 'failed')
  return (
    <div className="mt-1.5">
      {failed.map((c) => (
        <p key={c.id}>
          <Chip tone="danger">failed</Chip> {c.title}
        </p>
      ))}
      <button type="button" aria-expanded={isShown} className="min-h-11 text-quiet underline underline-offset-2" onClick={() => setShown(!isShown)}>
        All {checks.length} checks
      </button>
      {isShown && (
        <ol className="divide-y divide-line">
          {checks.map((c) => (
            <li key={c.id} aria-current={c === next ? 'step' : undefined} className="flex flex-wrap items-center justify-between gap-x-4 py-1.5">
              <span className={c === next ? 'font-bold' : ''}>{c.title}</span>
              {c.state === 'left' && <span className="text-quiet">not tried: {c.why_left}</span>}
              {(c.state === 'passed' || c.state === 'failed') && <Chip tone={c.state === 'passed' ? 'clear' : 'danger'}>{c.state}</Chip>}
            </li>
          ))}
        </ol>
      )}
    </div>
  )
}

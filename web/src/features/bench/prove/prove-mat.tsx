import { useState, type ReactNode } from 'react'
import type { Job } from '@/api/types'
import { percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel } from '@/ui/panel'
import { Bar } from '../frame/bar'
import { useBench } from '../frame/bench-context'
import { Gate } from '../frame/gate'
import { MainsButton, useMains } from '../frame/mains'
import { MatKeys, useMatKeys } from '../frame/mat-keys'
import { useHeld } from '../frame/use-held'
import { NextBack, useShutting } from '../opening/next-back'

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

/** What stands between the bench and the next try: an open unit, a plug that is in the wrong state. */
function useInTheWay(): { says: string; act: (() => void) | undefined; does: string } | null {
  const { job } = useBench()
  const setMains = useMains()
  const shutting = useShutting()
  const isLive = job.power === 'live'
  const isOpen = job.depth > 0 || job.mat.left > 0
  if (isOpen && job.power !== 'out') return { says: 'Proof counts with the screws in. Pull the plug, then close it up.', act: setMains('out'), does: 'Plug is pulled: mains out' }
  if (isOpen) return { says: 'Proof counts with the screws in: close it up.', act: shutting.act, does: shutting.says }
  if (!isLive) return { says: 'The proof needs the mains live.', act: setMains('live'), does: 'Mains is live now' }
  return null
}

function Proof({ proof, codes }: { proof: Said; codes: readonly string[] }) {
  const next = proof.checks.find((c) => c.state === 'open')
  const needsPasses = !next && codes.includes('passes')
  const passed = proof.checks.filter((c) => c.state === 'passed').length
  const { openMat } = useBench()
  return (
    <>
      <NextBack onMat={() => openMat()} />
      {next ? <Try key={`${next.id} ${next.done}`} check={next} /> : needsPasses ? <Pass key={proof.passes} proof={proof} /> : <Finish codes={codes} />}
      <Panel title="The proof so far" aside={`cured with ${percent(proof.p_fixed)}`}>
        <Progress done={passed} of={proof.checks.length} what="checks passed" />
        <Progress done={proof.passes} of={proof.passes_needed} what="clean passes in a row" />
        <p className="mt-1.5 max-w-[70ch] text-quiet">
          The fault showed in about {percent(proof.p_fail_per_try)} of tries; so many clean passes in a row make it 95 in 100 sure that it is gone. U takes the last one back.
        </p>
        {proof.verdict === 'probable' && (
          <Notice tone="brass" title="Probable is a valid end">
            {proof.says}
          </Notice>
        )}
        <Checks checks={proof.checks} next={next} />
      </Panel>
    </>
  )
}

/** Good, or not: 1 and 2 mean the same in every part of the proof. */
function Verdict({ good, bad, onGood, onBad, more }: { good: string; bad: string; onGood: () => void; onBad: () => void; more?: { says: string; key: string; act: () => void } | undefined }) {
  const { mayWork } = useBench()
  const way = useInTheWay()
  const isOn = mayWork && way === null
  useMatKeys('proof', { '1': isOn ? onGood : undefined, '2': isOn ? onBad : undefined, ...(more ? { [more.key]: isOn ? more.act : undefined } : {}), Enter: way?.act })
  return (
    <Bar>
      {way && mayWork && (
        <div className="mb-2 flex w-fit flex-wrap items-center gap-3 rounded-lg border border-brass/45 bg-brass-soft py-1 pr-1 pl-3">
          <span className="font-semibold">{way.says}</span>
          <Button hotkey="Enter" onClick={way.act} disabled={!way.act}>
            {way.does}
          </Button>
        </div>
      )}
      <div className="flex flex-wrap gap-2">
        <Button kind="answer" hotkey="1" disabled={!isOn} onClick={onGood}>
          {good}
        </Button>
        <Button kind="answer" hotkey="2" disabled={!isOn} onClick={onBad}>
          {bad}
        </Button>
        {more && (
          <Button kind="answer" hotkey={more.key} disabled={!isOn} onClick={more.act} className="ml-auto">
            {more.says}
          </Button>
        )}
      </div>
    </Bar>
  )
}

/** One check; where it is done several times, try by try or all at once. */
function Try({ check: c }: { check: Check }) {
  const { send } = useBench()
  const left = c.tries - c.done
  const say = (isPassed: boolean, isAll: boolean) => send({ do: 'check', check: c.id, is_passed: isPassed, is_all: isAll }, `${isPassed ? 'Good' : 'Failed'}: ${c.title}`)
  const all = left > 1 ? { says: `All ${left} were good`, key: '3', act: () => say(true, true) } : undefined
  return (
    <Now title={c.title} how={c.how}>
      {c.tries > 1 && <Progress done={c.done} of={c.tries} what="good" />}
      <Verdict good={c.tries > 1 ? 'One was good' : 'Works'} bad={c.tries > 1 ? 'It failed' : 'Fails'} onGood={() => say(true, left === 1)} onBad={() => say(false, true)} more={all} />
    </Now>
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

function Now({ title, how, children }: { title: string; how: string; children: ReactNode }) {
  const heading = useHeld()
  return (
    <section aria-label="Proven now" aria-live="polite" className="rounded-xl border-[1.5px] border-ink bg-paper px-4.5 py-3.5">
      <h2 ref={heading} tabIndex={-1} className="text-[1.7rem] leading-tight font-bold outline-none">
        {title}
      </h2>
      <p className="mt-1 mb-2 max-w-[70ch] text-[1.1rem]">{how}</p>
      {children}
    </section>
  )
}

function Progress({ done, of, what }: { done: number; of: number; what: string }) {
  return (
    <p className="flex flex-wrap items-center gap-x-3 py-0.5">
      <b className="figures text-[1.1rem]">
        {done} of {of}
      </b>{' '}
      {what}
      <span aria-hidden="true" className="flex flex-wrap gap-1">
        {Array.from({ length: Math.min(of, 40) }, (_, n) => (
          <span key={n} className={`h-2.5 w-4 rounded-full border ${n < done ? 'border-verdigris bg-verdigris' : 'border-ink/40'}`} />
        ))}
      </span>
    </p>
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
              {c.state !== 'open' && <Chip tone={c.state === 'passed' ? 'clear' : 'danger'}>{c.state}</Chip>}
            </li>
          ))}
        </ol>
      )}
    </div>
  )
}

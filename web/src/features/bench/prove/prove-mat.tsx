import type { Job } from '@/api/types'
import { percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { Gate } from '../frame/gate'
import { MainsButton, MAINS_IS, useMains } from '../frame/mains'
import { MatKeys, useMatKeys } from '../frame/mat-keys'

/** The same baseline again, the profile of the drive, and as many clean passes as the odds ask for. */
export function ProveMat() {
  const { job } = useBench()
  if (job.agree.proposal?.repair === '')
    return (
      <>
        <Notice title="Nothing to prove">The unit goes back as it is. Close it and go on.</Notice>
        <Gate backTo={['isolate']} />
      </>
    )
  return (
    <MatKeys enter={job.missing.length > 0 ? 'proof' : 'gate'} digits="proof">
      <Proof proof={job.proof} />
      <Gate backTo={['isolate', 'repair']} />
    </MatKeys>
  )
}

type Check = Job['proof']['checks'][number]

function useGetReady() {
  const { job, send, isBusy, mayWork } = useBench()
  const setMains = useMains()
  const isClosed = job.depth === 0
  const close = mayWork && !isBusy ? () => send({ do: 'depth', depth: 0 }, 'Closed up') : undefined
  return { isReady: isClosed && job.power === 'live', isClosed, close, key: isClosed ? setMains('live') : close }
}

function Proof({ proof }: Pick<Job, 'proof'>) {
  const { send, isBusy, mayWork } = useBench()
  const { isReady, isClosed, close, key } = useGetReady()
  const canTry = mayWork && !isBusy && isReady
  const next = proof.checks.find((c) => c.state === 'open')
  const needsPasses = !next && proof.passes < proof.passes_needed
  const check = (c: Check, isPassed: boolean) => send({ do: 'check', check: c.id, is_passed: isPassed }, `${isPassed ? 'Passed' : 'Failed'}: ${c.title}`)
  const pass = (isClean: boolean) => send({ do: 'pass', is_clean: isClean }, isClean ? 'Clean pass' : 'Pass failed')
  const say = (isGood: boolean) => (next ? check(next, isGood) : pass(isGood))
  const isOn = canTry && (next !== undefined || needsPasses)
  useMatKeys('proof', { '1': isOn ? () => say(true) : undefined, '2': isOn ? () => say(false) : undefined, Enter: isReady ? undefined : key })
  return (
    <>
      {!isReady && mayWork && <Prepare isClosed={isClosed} onClose={close} />}
      <Panel title="The same tries again, and the rest of the profile" aside={`${proof.checks.filter((c) => c.state === 'passed').length} of ${proof.checks.length} passed`}>
        <ol className="divide-y divide-line">
          {proof.checks.map((c) => (
            <CheckRow key={c.id} check={c} isNext={c === next} canTry={canTry} onSay={say} />
          ))}
        </ol>
      </Panel>
      <Passes proof={proof} canTry={needsPasses && canTry} asks={needsPasses} onPass={pass} />
    </>
  )
}

function Prepare({ isClosed, onClose }: { isClosed: boolean; onClose: (() => void) | undefined }) {
  const { job } = useBench()
  return (
    <div className="flex flex-wrap items-center gap-3 rounded-xl border border-brass/45 bg-brass-soft px-4 py-2.5">
      <span className="font-semibold">{isClosed ? `The proof needs the mains live; it is ${MAINS_IS[job.power]}.` : 'Proof counts with the screws in: close the unit first.'}</span>
      {isClosed ? (
        <MainsButton to="live" hotkey="Enter" />
      ) : (
        <Button hotkey="Enter" onClick={onClose} disabled={!onClose}>
          It is closed up
        </Button>
      )}
    </div>
  )
}

function CheckRow({ check: c, isNext, canTry, onSay }: { check: Check; isNext: boolean; canTry: boolean; onSay: (isPassed: boolean) => void }) {
  return (
    <li aria-current={isNext ? 'step' : undefined} className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-2">
      <span className="min-w-0 flex-1">
        <span className={isNext ? 'font-bold' : ''}>{c.title}</span>
        {isNext && <span className="block max-w-[70ch] text-quiet">{c.how}</span>}
      </span>
      {c.state !== 'open' && <Chip tone={c.state === 'passed' ? 'clear' : 'danger'}>{c.state}</Chip>}
      {isNext && (
        <span className="flex gap-2">
          <Button kind="answer" hotkey="1" disabled={!canTry} onClick={() => onSay(true)}>
            Works
          </Button>
          <Button kind="answer" hotkey="2" disabled={!canTry} onClick={() => onSay(false)}>
            Fails
          </Button>
        </span>
      )}
    </li>
  )
}

function Passes({ proof, asks, canTry, onPass }: Pick<Job, 'proof'> & { asks: boolean; canTry: boolean; onPass: (isClean: boolean) => void }) {
  return (
    <Panel title="Clean passes in a row" aside={`cured with ${percent(proof.p_fixed)}`}>
      <p className="flex flex-wrap items-center gap-1.5" aria-hidden="true">
        {Array.from({ length: proof.passes_needed }, (_, n) => (
          <span key={n} className={`h-3.5 w-6 rounded-full border ${n < proof.passes ? 'border-verdigris bg-verdigris' : 'border-ink/40'}`} />
        ))}
      </p>
      <p className="mt-1.5 max-w-[72ch]">
        <b className="figures">
          {proof.passes} of {proof.passes_needed}
        </b>{' '}
        passes, from insert to play and out again. The fault showed in about {percent(proof.p_fail_per_try)} of tries; so many clean ones in a row make it 95 in 100 sure that it is gone.
      </p>
      {proof.verdict === 'probable' && <Notice tone="brass" title="Probable is a valid end">{proof.says}</Notice>}
      {asks && (
        <p className="mt-2 flex gap-2">
          <Button kind="answer" hotkey="1" disabled={!canTry} onClick={() => onPass(true)}>
            One clean pass
          </Button>
          <Button kind="answer" hotkey="2" disabled={!canTry} onClick={() => onPass(false)}>
            It failed
          </Button>
        </p>
      )}
    </Panel>
  )
}

import { useKeys } from '@/lib/use-keys'
import { percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel } from '@/ui/panel'
import { useBench } from './bench-context'
import { Gate } from './gate'

/** The same baseline again, the profile of the drive, and as many clean passes as the odds ask for. */
export function ProveMat() {
  const { job, send, isBusy, mayWork } = useBench()
  const { proof } = job
  const isClosed = job.depth === 0
  const canTry = mayWork && !isBusy && isClosed && job.power === 'live'
  const next = proof.checks.find((c) => c.state === 'open')
  const check = (id: string, isPassed: boolean, title: string) => send({ do: 'check', check: id, is_passed: isPassed }, `${isPassed ? 'Passed' : 'Failed'}: ${title}`)
  const pass = (isClean: boolean) => send({ do: 'pass', is_clean: isClean }, isClean ? 'Clean pass' : 'Pass failed')
  const needsPasses = !next && proof.passes < proof.passes_needed
  useKeys({
    '1': canTry && next ? () => check(next.id, true, next.title) : canTry && needsPasses ? () => pass(true) : undefined,
    '2': canTry && next ? () => check(next.id, false, next.title) : canTry && needsPasses ? () => pass(false) : undefined,
    Enter: mayWork && !isBusy && job.missing.length > 0 ? () => prepare() : undefined,
  })
  const prepare = () => {
    if (!isClosed) send({ do: 'depth', depth: 0 }, 'Closed up')
    else if (job.power !== 'live') send({ do: 'mains', state: 'live' }, 'Mains live')
  }
  if (job.agree.proposal?.repair === '')
    return (
      <>
        <Notice title="Nothing to prove">The unit goes back as it is. Close it and go on.</Notice>
        <Gate backTo={['isolate']} />
      </>
    )
  return (
    <>
      {(!isClosed || job.power !== 'live') && mayWork && (
        <div className="flex flex-wrap items-center gap-3 rounded-xl border border-brass/45 bg-brass-soft px-4 py-2.5">
          <span className="font-semibold">{isClosed ? 'The proof needs the mains live; it is out.' : 'Proof counts with the screws in: close the unit first.'}</span>
          <Button hotkey="Enter" onClick={prepare} disabled={isBusy}>
            {isClosed ? 'Mains is live now' : 'It is closed up'}
          </Button>
        </div>
      )}
      <Panel title="The same tries again, and the rest of the profile" aside={`${proof.checks.filter((c) => c.state === 'passed').length} of ${proof.checks.length} passed`}>
        <ol className="divide-y divide-line">
          {proof.checks.map((c) => (
            <li key={c.id} aria-current={c === next ? 'step' : undefined} className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-2">
              <span className="min-w-0 flex-1">
                <span className={c === next ? 'font-bold' : ''}>{c.title}</span>
                {c === next && <span className="block max-w-[70ch] text-quiet">{c.how}</span>}
              </span>
              {c.state !== 'open' && <Chip tone={c.state === 'passed' ? 'clear' : 'danger'}>{c.state}</Chip>}
              {c === next && (
                <span className="flex gap-2">
                  <Button kind="answer" hotkey="1" disabled={!canTry} onClick={() => check(c.id, true, c.title)}>
                    Works
                  </Button>
                  <Button kind="answer" hotkey="2" disabled={!canTry} onClick={() => check(c.id, false, c.title)}>
                    Fails
                  </Button>
                </span>
              )}
            </li>
          ))}
        </ol>
      </Panel>
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
        {needsPasses && (
          <p className="mt-2 flex gap-2">
            <Button kind="answer" hotkey="1" disabled={!canTry} onClick={() => pass(true)}>
              One clean pass
            </Button>
            <Button kind="answer" hotkey="2" disabled={!canTry} onClick={() => pass(false)}>
              It failed
            </Button>
          </p>
        )}
      </Panel>
      <Gate backTo={['isolate', 'repair']} />
    </>
  )
}

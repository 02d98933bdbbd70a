import { useState } from 'react'
import type { Diagnosis, Move } from '@/api/types'
import { money } from '@/lib/money'
import { useKeys } from '@/lib/use-keys'
import { cures, minutes, percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Chip } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { EndDialog } from '../agree/end-dialog'
import { Bar } from '../frame/bar'
import { Deeper } from './deeper'
import { DEPTHS } from '../frame/depths'
import { useMatKeys } from '../frame/mat-keys'
import { SheetSays } from '../frame/sheet-says'
import { useHeld } from '../frame/use-held'
import { Answers, Cautions } from '../frame/question-panel'
import type { Question } from '../frame/types'

interface Props {
  move: Move
  isFirst: boolean
  onTrial: (repair: string) => void
  onDeeper: (move: Move) => void
}

/** One thing to do next, said in one line, with its price, its reason and its answers. */
export function NextMove({ move, isFirst, onTrial, onDeeper }: Props) {
  const { job } = useBench()
  const { diagnosis } = job
  const heading = useHeld()
  const [why, more] = move.kind === 'ask' ? [tells(move), move.why] : inOne(move.why)
  return (
    <section aria-label="Next move" className="relative rounded-xl border-[1.5px] border-ink bg-paper px-4.5 pt-5 pb-4">
      <p className="absolute -top-3 left-4 rounded-md bg-ink px-2.5 py-0.5 text-[0.9rem] font-bold text-paper">
        {isFirst ? (diagnosis.is_tie ? 'Next move: this or the first beside it' : 'Next move') : 'Instead'}
      </p>
      <h2 ref={heading} tabIndex={-1} className="text-[1.7rem] leading-tight font-bold outline-none">
        {move.title}
      </h2>
      {move.how && <p className="mt-1 max-w-[70ch] text-[1.1rem]">{move.how}</p>}
      <p className="mt-1 max-w-[70ch] text-quiet">
        {why} {more && move.kind !== 'ask' && <MoreWhy more={more} />}
      </p>
      <SheetSays sheet={move.sheet} />
      <Price move={move} />
      {isFirst && <SameGo looks={diagnosis.same_go} />}
      <div className="mt-2.5">
        <Cautions cautions={move.cautions} />
        {move.kind === 'ask' && <Answers question={asQuestion(move)} previews={move.answers} aside={more} />}
        {move.kind === 'swap' && <SwapTest move={move} onTrial={onTrial} />}
        {(move.kind === 'repair' || move.kind === 'stop') && <Propose move={move} onTrial={onTrial} />}
      </div>
      {isFirst && <Deeper onShow={onDeeper} />}
    </section>
  )
}

/** What a question is asked for, in a few words: the chances stand behind W. */
const tells = ({ answers, why }: Move): string => {
  const byChance = [...answers].sort((a, b) => b.chance - a.chance)
  const [first, second] = [...new Set(byChance.map((a) => a.top_fault))]
  if (!first) return why
  return second ? `It tells “${first}” from “${second}”.` : `It makes “${first}” surer, or less so.`
}

/** A reason in one sentence, and what else there is to say. */
const inOne = (why: string): [string, string] => {
  const end = why.search(/[.!?] [A-Z“]/)
  return end < 0 ? [why, ''] : [why.slice(0, end + 1), why.slice(end + 2)]
}

function MoreWhy({ more }: { more: string }) {
  const [isShown, setShown] = useState(false)
  useKeys({ w: () => setShown(!isShown) })
  return (
    <>
      {isShown && `${more} `}
      <button type="button" className="-my-2.5 min-h-11 min-w-11 underline underline-offset-2" aria-expanded={isShown} onClick={() => setShown(!isShown)}>
        {isShown ? 'less' : 'more'} (W)
      </button>
    </>
  )
}

function asQuestion(move: Move): Question {
  return { ...move, kind: 'move', ask: move.title, outcomes: move.answers.map((a) => ({ id: a.outcome, label: a.label, is_failure: false })) }
}

/** Looks that pay by themselves and lie where this move opens the unit anyway. */
function SameGo({ looks }: { looks: Diagnosis['same_go'] }) {
  if (looks.length === 0) return null
  return (
    <p className="mt-2 max-w-[70ch]">
      <b>In the same go, {minutes(looks.reduce((sum, look) => sum + look.bench_min, 0))} more:</b> {looks.map((look) => look.title).join(' · ')}.
    </p>
  )
}

function Price({ move }: { move: Move }) {
  const { job } = useBench()
  return (
    <p className="mt-2 flex flex-wrap gap-1.5">
      <Chip className="text-[0.93rem]!">
        <b className="figures">{minutes(move.bench_min)}</b>
      </Chip>
      <Chip className="text-[0.93rem]!">{move.part_cents > 0 ? <b className="figures">{money(move.part_cents)}</b> : <b>no</b>} parts</Chip>
      {move.source && <Chip className="text-[0.93rem]!">{SOURCES[move.source]}{move.item && <>: <span className="figures">{move.item}</span></>}</Chip>}
      {move.wait_days > 0 && <Chip className="text-[0.93rem]!">wait {Math.round(move.wait_days)} days</Chip>}
      <Chip className="text-[0.93rem]!">
        {move.depth <= job.depth ? 'nothing to open' : `opens to: ${DEPTHS[move.depth]!.toLowerCase()}, ${minutes(move.opening_min)}`}
      </Chip>
      {job.configuration.on_trial.length > 0 && (
        <Chip tone="brass" className="text-[0.93rem]!">
          {move.kind === 'ask' ? `seen with ${job.configuration.on_trial.map((f) => f.item).join(' and ')} in it` : 'its own parts back first'}
        </Chip>
      )}
      {move.kind === 'repair' && <Chip className="text-[0.93rem]!">{cures(move.p_cures, move.p_lasts_year)}</Chip>}
      {move.saves_cents >= 50 && <Chip className="text-[0.93rem]!">saves about {money(Math.round(move.saves_cents / 100) * 100)} on average</Chip>}
    </p>
  )
}

const SOURCES: Record<string, string> = { shelf: 'part is here', donor: 'part in a donor', transit: 'part is on its way' }

/** A donor's part is tried and taken out again: what it showed is logged as a trial. */
function SwapTest({ move, onTrial }: { move: Move; onTrial: (repair: string) => void }) {
  const { isBusy, mayWork } = useBench()
  return (
    <ul className="mb-2.5 list-disc pl-5">
      {move.answers.map((a) => (
        <li key={a.outcome}>
          <b>{a.label}</b> ({percent(a.chance)}): then {a.top_fault} <span className="figures">{percent(a.top_p)}</span>, best repair: {a.next_repair}.
        </li>
      ))}
      {mayWork && (
        <li className="mt-2 list-none">
          <Button onClick={() => onTrial(move.repair)} disabled={isBusy}>
            Tried it: log the trial
          </Button>
        </li>
      )}
    </ul>
  )
}

function Propose({ move, onTrial }: { move: Move; onTrial: (repair: string) => void }) {
  const { send, isBusy, mayWork, job } = useBench()
  const repair = move.kind === 'stop' ? '' : move.id
  const end = repair ? '' : (job.agree.ends.find((e) => e.is_likeliest)?.id ?? '')
  const [isEnding, setEnding] = useState(false)
  const propose = () => send(repair ? { do: 'propose', repair } : { do: 'propose', repair, end }, repair ? `Propose: ${move.title}` : 'Propose to hand it back')
  const { hasEnter } = useMatKeys('move', { Enter: mayWork ? propose : undefined })
  if (!mayWork) return null
  return (
    <Bar>
    <div className="flex flex-wrap gap-2">
      <Button kind="act" className="min-h-14! text-[1.25rem]" hotkey={hasEnter ? 'Enter' : undefined} onClick={propose} disabled={(job.agree.proposal?.repair === repair && job.agree.proposal.end === end)}>
        {repair ? 'Propose it to the owner' : 'Propose to hand it back'}
      </Button>
      {!repair && (
        <Button onClick={() => setEnding(true)} disabled={isBusy}>
          Another end
        </Button>
      )}
      {isEnding && <EndDialog onClose={() => setEnding(false)} />}
      {repair && (
        <Button onClick={() => onTrial(repair)} disabled={isBusy}>
          Tried it already: log the trial
        </Button>
      )}
    </div>
    </Bar>
  )
}

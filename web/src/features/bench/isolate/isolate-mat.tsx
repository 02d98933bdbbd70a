import { useState, type ReactNode } from 'react'
import type { Drive, Move, Suspect } from '@/api/types'
import { money } from '@/lib/money'
import { useKeys } from '@/lib/use-keys'
import { curesBriefly, minutes } from '@/lib/words'
import { useBench } from '../frame/bench-context'
import { Barred } from './barred'
import { Beside } from './beside'
import { Gate } from '../frame/gate'
import { MatKeys } from '../frame/mat-keys'
import { NextMove } from './next-move'
import { Notices } from './notices'
import { Suspects } from './suspects'

interface Props {
  plan: (drive: Drive, parts: readonly Suspect[]) => ReactNode
  onTrial: (repair: string) => void
  onPart: () => void
}

/** What to do next, where the fault sits, and the rest, in this order at every width. */
export function IsolateMat({ plan, onTrial, onPart }: Props) {
  const { job } = useBench()
  const { diagnosis } = job
  const [picked, setPicked] = useState<string | null>(null)
  const [deeper, setDeeper] = useState<Move | null>(null)
  const [first, ...others] = diagnosis.moves
  const all = deeper && !diagnosis.moves.some((m) => m.id === deeper.id) ? [...diagnosis.moves, deeper] : diagnosis.moves
  const shown = all.find((m) => m.id === picked) ?? first
  const beside = diagnosis.moves.filter((m) => m !== shown).slice(0, 3)
  const isProposed = job.agree.proposal !== null
  useKeys({ n: picked ? () => setPicked(null) : others[0] ? () => setPicked(others[0]!.id) : undefined })
  const findings = job.tape.filter((l) => l.weighs && !l.struck_by).length
  return (
    <MatKeys enter={isProposed && job.missing.length === 0 ? 'gate' : shown?.kind === 'ask' ? 'answers' : 'move'}>
      <p className="sr-only" aria-live="polite">
        {shown && `Next move: ${shown.title}`}
      </p>
      <Notices />
      {shown && <NextMove key={shown.id} move={shown} isFirst={shown === first} onTrial={onTrial} onDeeper={(m) => { setDeeper(m); setPicked(m.id) }} />}
      {isProposed && <Gate backTo={['fault_seen']} />}
      <section aria-label="Where the fault sits" className="rounded-xl border border-line bg-paper xl:grid xl:grid-cols-[minmax(0,29.5rem)_minmax(0,1fr)]">
        <div className="overflow-x-auto p-3 xl:border-r xl:border-line">
          <h2 className="mb-1.5 font-bold">Where the fault sits, in percent</h2>
          <div className="mx-auto w-[28.5rem]">{plan(job.drive, diagnosis.parts)}</div>
        </div>
        <Suspects diagnosis={diagnosis} findings={findings} />
      </section>
      <div className="grid gap-3 md:grid-cols-3">
        {beside.map((m) => (
          <Alternative key={m.id} move={m} onPick={() => setPicked(m.id)} />
        ))}
      </div>
      <Barred />
      <Beside onTrial={onTrial} onPart={onPart} />
      {!isProposed && <Gate backTo={['fault_seen']} />}
    </MatKeys>
  )
}

function Alternative({ move, onPick }: { move: Move; onPick: () => void }) {
  return (
    <button type="button" onClick={onPick} className="rounded-xl border border-line bg-paper p-3 text-left hover:border-ink">
      <span className="block leading-snug font-bold">{move.title}</span>
      <span className="text-tiny text-quiet">
        {minutes(move.bench_min + move.opening_min)}
        {move.part_cents > 0 && ` · ${money(move.part_cents)}`}
        {move.kind === 'repair' && ` · ${curesBriefly(move.p_cures, move.p_lasts_year)}`} · at most about {money(Math.round(move.expected_cents / 100) * 100)} to the end
      </span>
    </button>
  )
}

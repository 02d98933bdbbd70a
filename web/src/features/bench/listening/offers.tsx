import { useState } from 'react'
import { Button } from '@/ui/button'
import { Chip } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import type { Offer, Sound } from './sound-queries'

/** What a recording answers: somebody takes it, hears it too, or hears something else. Nothing is taken by itself. */
export function Offers({ sound, onPlay }: { sound: Sound; onPlay: (from: number) => void }) {
  if (sound.offers.length === 0) return <p>No question of this drive is answered by it.</p>
  return (
    <>
      {sound.is_older && <p className="mb-2 text-quiet">Something has been tried since: it speaks of the unit as it was then. Record it again to take an answer.</p>}
      <ul className="divide-y divide-line">
        {sound.offers.map((o) => (
          <li key={o.question} className="py-2.5 first:pt-0">
            <OfferCard offer={o} line={sound.line} isOlder={sound.is_older} onPlay={sound.is_here ? onPlay : undefined} />
          </li>
        ))}
      </ul>
    </>
  )
}

function OfferCard({ offer, line, isOlder, onPlay }: { offer: Offer; line: number; isOlder: boolean; onPlay: ((from: number) => void) | undefined }) {
  const { from_s: from } = offer
  const { send, mayWork, isBusy } = useBench()
  const [isOther, setOther] = useState(false)
  const hear = (outcome: string, listened: boolean) => send({ do: 'hear', sound: line, question: offer.question, outcome, listened }, `Heard: ${offer.answers.find((a) => a.id === outcome)?.name ?? ''}`)
  return (
    <div>
      <p className="text-quiet">{offer.ask}</p>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <b className="text-[1.1rem]">{offer.says}</b>
        {offer.outcome && <span className="text-tiny text-quiet">{offer.sureness}</span>}
      </p>
      <p>
        {offer.why}
        {from !== null && onPlay && (
          <Button kind="quiet" onClick={() => onPlay(from)}>
            Play it there
          </Button>
        )}
      </p>
      <WouldMove moves={offer.moves} />
      {offer.seen !== null && offer.taken === null && <p className="text-quiet">The bench has answered this itself, in line {offer.seen}: the recording alone does not stand in its place.</p>}
      {offer.taken !== null ? (
        <p className="mt-1 font-semibold text-verdigris">Taken, line {offer.taken}</p>
      ) : (
        mayWork && !isOlder && (
          <div className="mt-1.5 flex flex-wrap gap-2">
            {offer.outcome && (
              <>
                <Button disabled={isBusy} onClick={() => hear(offer.outcome, true)}>
                  I hear it too
                </Button>
                {offer.seen === null && (
                  <Button disabled={isBusy} onClick={() => hear(offer.outcome, false)}>
                    Take it as heard
                  </Button>
                )}
              </>
            )}
            <Button kind="quiet" aria-expanded={isOther} onClick={() => setOther(!isOther)}>
              I hear something else
            </Button>
          </div>
        )
      )}
      {isOther && offer.taken === null && (
        <div className="mt-1.5 flex flex-wrap gap-1.5">
          {offer.answers.map((a) => (
            <Button key={a.id} disabled={isBusy} onClick={() => hear(a.id, true)}>
              {a.name}
            </Button>
          ))}
        </div>
      )}
    </div>
  )
}

function WouldMove({ moves }: { moves: Offer['moves'] }) {
  if (moves.length === 0) return null
  return (
    <p className="mt-1 flex flex-wrap gap-1.5">
        <span className="text-quiet">would move</span>
        {moves.map((m) => (
          <Chip key={m.part} tone={m.db > 0 ? 'ember' : 'clear'}>
            {m.db > 0 ? 'towards' : 'away from'} {m.name}
            <span className="figures ml-1.5">{m.db > 0 ? '+' : '−'}{Math.abs(m.db).toFixed(0)}</span>
          </Chip>
        ))}
      </p>
  )
}

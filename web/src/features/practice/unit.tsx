import { useState } from 'react'
import { Link } from 'react-router'
import { money } from '@/lib/money'
import { Button } from '@/ui/button'
import { DepthPad } from '@/ui/depth-pad'
import { FirstGuess } from './first-guess'
import { FAMILIES, soundOf, type Move, type Run } from './practice-queries'

interface Props {
  run: Run
  isBusy: boolean
  onMove: (move: Move) => void
}

/** The unit: which lesson and drive, what it has cost, how far it is open, what the counter has seen, and what it sounds like. */
export function Unit({ run, isBusy, onMove }: Props) {
  return (
    <aside aria-label="The unit" className="flex flex-col gap-3.5 border-line bg-paper p-3.5 max-lg:border-t lg:w-51 lg:shrink-0 lg:overflow-y-auto lg:border-r">
      <div className="rounded-lg border-[1.5px] border-dashed border-ink p-3 pb-1">
        <h1 className="text-[1.2rem] leading-tight font-bold">
          {run.number}. {run.name}
        </h1>
        <p className="text-tiny">{run.drive || `${FAMILIES[run.family]}, well equipped`}</p>
        <Link to="/practice" className="inline-flex min-h-11 items-center text-tiny underline underline-offset-2">
          All lessons
        </Link>
      </div>
      <p aria-label="Spent so far" className="flex items-baseline justify-between gap-2">
        <span className="figures text-[1.5rem] leading-none font-bold">{money(run.cents)}</span>
        <span className="figures text-quiet">{run.minutes.toFixed(0)} min</span>
      </p>
      <Open run={run} isBusy={isBusy} onMove={onMove} />
      <Heard run={run} isBusy={isBusy} onMove={onMove} />
      <FirstGuess run={run} isBusy={isBusy} onGuess={(what, percent) => onMove({ do: 'guess', what, percent })} />
      <blockquote className="border-l-3 border-line pl-2.5 text-quiet">
        {run.told.map((t) => (
          <p key={t}>{t}</p>
        ))}
      </blockquote>
    </aside>
  )
}

/** Opened and shut by hand, with the mains out: before it is opened its sheet says what is undone, before it is shut somebody says how. */
function Open({ run, isBusy, onMove }: Props) {
  const [asked, setAsked] = useState<string | null>(null)
  const [looks, setLooks] = useState(false)
  const now = run.ways.findIndex((w) => w.is_now)
  const way = run.ways.find((w) => w.depth === asked && !w.is_now)
  const go = (depth: string) => {
    setAsked(null)
    setLooks(false)
    onMove({ do: 'open', what: depth, care: looks ? ['look_over'] : [] })
  }
  return (
    <fieldset>
      <DepthPad names={run.ways.map((w) => w.name)} now={now} isDisabled={isBusy} onSet={(n) => setAsked(n === now ? null : run.ways[n]!.depth)} />
      {way && (
        <div role="group" aria-label={`To ${way.name}`} className="mt-1.5 rounded-md border border-ink bg-mat/60 p-2">
          <p className="font-semibold first-letter:uppercase">
            {way.name}, {way.minutes.toFixed(0)} min
          </p>
          {run.is_live && <p className="text-tiny text-danger">Take the mains out first, and wait as long as its label says: charge remains.</p>}
          {way.steps.length > 0 && (
            <ol aria-label="What is undone" className="list-decimal pl-5 text-tiny">
              {way.steps.map((s) => (
                <li key={s}>{s}</li>
              ))}
            </ol>
          )}
          {way.is_shutting && (
            <label className="flex min-h-11 items-center gap-2 text-tiny">
              <input type="checkbox" className="size-5" checked={looks} onChange={(e) => setLooks(e.target.checked)} />
              Look over every flex first (1 min)
            </label>
          )}
          <Button className="mt-1 w-full" disabled={isBusy || run.is_live} onClick={() => go(way.depth)}>
            {run.ways.indexOf(way) > now ? 'Open it so far' : 'Shut it so far'}
          </Button>
        </div>
      )}
    </fieldset>
  )
}

function Heard({ run, isBusy, onMove }: Props) {
  if (run.may_play)
    return (
      <div>
        <p className="text-tiny text-quiet">A disc goes in, and this is what it sounds like now:</p>
        <audio controls preload="none" src={soundOf(run)} className="mt-1 h-11 w-full" aria-label="Listen to the unit" />
      </div>
    )
  return (
    <Button hotkey="S" className="justify-between px-2.5!" disabled={isBusy} onClick={() => onMove({ do: 'listen' })}>
      Listen: a disc goes in (2 min)
    </Button>
  )
}

import { useEffect, useRef } from 'react'
import type { TapeLine } from '@/api/types'
import { dayOf, timeOf } from '@/lib/dates'
import { useKept } from '@/lib/kept'
import { decibans, moved } from '@/lib/words'
import { Button } from '@/ui/button'
import { Chip } from '@/ui/panel'
import { useBench } from '../frame/bench-context'

const WHY_NOT: Record<string, string> = {
  replaced: 'asked again since',
  cant_tell: 'no weight',
  not_on_this_drive: 'never on this model: no evidence',
  no_baseline: 'no baseline: no evidence',
  wrong_state: 'seen in another state: no evidence',
  disc_wrong_way: 'disc the wrong way round: no evidence',
  unpaired_board: 'another board fitted: no evidence',
  too_many_items: 'more items than can be told apart: no evidence',
  unpowered: 'no power: no evidence',
  not_reached: 'did not come that far: no evidence',
  older_than_change: 'older than the last change',
}

interface Props {
  onFinding: () => void
  onReading: () => void
  onTrial: () => void
  onKeys: () => void
}

/** Every finding in time order, each with what it moved. Struck lines stay. */
export function Tape({ onFinding, onReading, onTrial, onKeys }: Props) {
  const { job, mayWork, onTheWay } = useBench()
  const [inDecibans, setInDecibans] = useKept<'yes' | 'no'>('decibans', 'no')
  const roll = useRef<HTMLOListElement>(null)
  const lines = job.tape.filter((l) => l.kind !== 'strike' && l.kind !== 'restore')
  const findings = lines.filter((l) => l.weighs && !l.struck_by).length
  useEffect(() => {
    if (roll.current) roll.current.scrollTop = roll.current.scrollHeight
  }, [lines.length, onTheWay.length])
  return (
    <aside aria-label="Tape" className="flex min-h-0 flex-col border-line bg-tape max-lg:border-t lg:w-68 lg:shrink-0 xl:w-74 lg:border-l">
      <div className="flex items-center justify-between border-b border-dashed border-line px-4 py-0.5">
        <h2 className="text-[1.05rem] font-bold">Tape</h2>
        <button
          type="button"
          className="min-h-11 text-tiny text-quiet underline underline-offset-2"
          aria-pressed={inDecibans === 'yes'}
          title="Ten decibans are ten to one"
          onClick={() => setInDecibans(inDecibans === 'yes' ? 'no' : 'yes')}
        >
          {findings} {findings === 1 ? 'finding' : 'findings'}, {inDecibans === 'yes' ? 'in words' : 'in decibans'}
        </button>
      </div>
      <ol ref={roll} className="min-h-0 flex-1 overflow-y-auto" tabIndex={0} aria-label="Findings in time order">
        {lines.length === 0 && <li className="px-4 py-3 text-quiet">Nothing on the tape yet. What is seen, measured or tried stands here.</li>}
        {lines.map((line, n) => (
          <Line key={line.number} line={line} inDecibans={inDecibans === 'yes'} newDay={n === 0 || dayOf(lines[n - 1]!.at) !== dayOf(line.at)} />
        ))}
        {onTheWay.map((w) => (
          <li key={w.says} className="border-b border-dashed border-line px-4 py-1.5 text-tiny text-quiet">
            on its way: {w.says}
          </li>
        ))}
      </ol>
      {mayWork && (
        <div className="flex flex-wrap gap-2 border-t border-line p-3">
          <Button hotkey="F" onClick={onFinding} className="px-2.5!">
            Finding
          </Button>
          <Button hotkey="M" onClick={onReading} className="px-2.5!">
            Measure
          </Button>
          <Button hotkey="T" onClick={onTrial} className="px-2.5!">
            Trial
          </Button>
          <Button hotkey="?" onClick={onKeys} className="px-2.5!">
            Keys
          </Button>
        </div>
      )}
    </aside>
  )
}

function Line({ line, newDay, inDecibans }: { line: TapeLine; newDay: boolean; inDecibans: boolean }) {
  const { send, isBusy, mayWork } = useBench()
  const isStruck = line.struck_by !== ''
  return (
    <>
      {newDay && <li className="border-b border-dashed border-line bg-mat/50 px-4 py-0.5 text-tiny text-quiet">{dayOf(line.at)}</li>}
      <li className={`grid grid-cols-[3.3rem_minmax(0,1fr)] gap-x-2 border-b border-dashed border-line px-4 ${line.is_finding ? 'py-2' : 'py-1 text-tiny text-quiet'}`}>
        <div>
        {!(line.is_finding && mayWork) && <Time at={line.at} />}
        {line.is_finding && mayWork && (
          <button
            type="button"
            disabled={isBusy}
            className="-ml-1 min-h-11 min-w-11 rounded px-1 text-left text-tiny leading-tight text-quiet hover:bg-mat hover:text-ink"
            aria-label={`${timeOf(line.at)} ${isStruck ? 'restore' : 'strike'}: ${line.text}`}
            onClick={() =>
              isStruck
                ? send({ do: 'restore', line: line.number }, `Let line ${line.number} stand again`)
                : send({ do: 'strike', line: line.number, why: '' }, `Strike: ${line.text}`)
            }
          >
            <Time at={line.at} />{' '}
            <span className="underline underline-offset-2">{isStruck ? 'restore' : 'strike'}</span>
          </button>
        )}
        </div>
        <div className="min-w-0">
          <p className={isStruck ? 'text-quiet line-through' : 'break-words'}>{line.text}</p>
          {isStruck && (
            <p className="text-tiny text-quiet">
              Struck by {line.struck_by}
              {line.struck_why && `: ${line.struck_why}`}
            </p>
          )}
          {line.weighs && !isStruck && <Weights line={line} inDecibans={inDecibans} />}
        </div>
      </li>
    </>
  )
}

function Time({ at }: { at: string }) {
  return (
    <time dateTime={at} className="figures block text-tiny leading-6 text-quiet">
      {timeOf(at)}
    </time>
  )
}

/** What a finding moved: in words, or in decibans where somebody wants them. */
function Weights({ line, inDecibans }: { line: TapeLine; inDecibans: boolean }) {
  const most = inDecibans ? 2 : 1
  const up = line.weights.filter((w) => w.db > 0).slice(0, most)
  const down = line.weights.filter((w) => w.db < 0).slice(0, most)
  const shown = [...up, ...down]
  if (line.left_out || shown.length === 0)
    return (
      <p className="mt-0.5">
        <Chip>{WHY_NOT[line.left_out] ?? 'no weight'}</Chip>
      </p>
    )
  return (
    <p className="mt-1 flex flex-wrap gap-1">
      {shown.map((w) => (
        <Chip key={w.part} tone={w.db > 0 ? 'ember' : 'clear'} className={inDecibans ? 'figures' : ''}>
          {inDecibans ? `${w.name} ${decibans(w.db)}` : `${moved(w.db)} ${w.name}`}
        </Chip>
      ))}
    </p>
  )
}

import { useEffect, useRef } from 'react'
import type { TapeLine } from '@/api/types'
import { dayOf, timeOf } from '@/lib/dates'
import { decibans } from '@/lib/words'
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
}

/** Every finding in time order, each with what it moved. Struck lines stay. */
export function Tape({ onFinding, onReading, onTrial }: Props) {
  const { job, mayWork } = useBench()
  const roll = useRef<HTMLOListElement>(null)
  const lines = job.tape.filter((l) => l.kind !== 'strike' && l.kind !== 'restore')
  const findings = lines.filter((l) => l.weighs && !l.struck_by).length
  useEffect(() => {
    if (roll.current) roll.current.scrollTop = roll.current.scrollHeight
  }, [lines.length])
  return (
    <aside aria-label="Tape" className="flex min-h-0 flex-col border-line bg-tape max-lg:border-t lg:w-72 lg:shrink-0 xl:w-84 lg:border-l">
      <div className="flex items-baseline justify-between border-b border-dashed border-line px-4 py-2.5">
        <h2 className="text-[1.05rem] font-bold">Tape</h2>
        <span className="text-tiny text-quiet">
          {findings} {findings === 1 ? 'finding' : 'findings'}
        </span>
      </div>
      <ol ref={roll} className="min-h-0 flex-1 overflow-y-auto" tabIndex={0} aria-label="Findings in time order">
        {lines.length === 0 && <li className="px-4 py-3 text-quiet">Nothing on the tape yet. What is seen, measured or tried stands here.</li>}
        {lines.map((line, n) => (
          <Line key={line.number} line={line} newDay={n === 0 || dayOf(lines[n - 1]!.at) !== dayOf(line.at)} />
        ))}
      </ol>
      {mayWork && (
        <div className="flex flex-wrap gap-2 border-t border-line p-3">
          <Button hotkey="F" onClick={onFinding} className="px-2.5!">
            Finding
          </Button>
          <Button hotkey="M" onClick={onReading} className="px-2.5!">
            Reading
          </Button>
          <Button hotkey="T" onClick={onTrial} className="px-2.5!">
            Trial
          </Button>
        </div>
      )}
    </aside>
  )
}

function Line({ line, newDay }: { line: TapeLine; newDay: boolean }) {
  const { send, isBusy, mayWork } = useBench()
  const isStruck = line.struck_by !== ''
  return (
    <>
      {newDay && <li className="border-b border-dashed border-line bg-mat/50 px-4 py-0.5 text-tiny text-quiet">{dayOf(line.at)}</li>}
      <li className={`grid grid-cols-[3.3rem_minmax(0,1fr)] gap-x-2 border-b border-dashed border-line px-4 ${line.is_finding ? 'py-2' : 'py-1 text-tiny text-quiet'}`}>
        <div>
        <time dateTime={line.at} className="figures text-tiny block leading-6 text-quiet">
          {timeOf(line.at)}
        </time>
        {line.is_finding && mayWork && (
          <button
            type="button"
            disabled={isBusy}
            className="min-h-7 text-tiny text-quiet underline underline-offset-2 hover:text-ink"
            aria-label={`${isStruck ? 'restore' : 'strike'}: ${line.text}`}
            onClick={() =>
              isStruck
                ? send({ do: 'restore', line: line.number }, `Let line ${line.number} stand again`)
                : send({ do: 'strike', line: line.number, why: '' }, `Strike: ${line.text}`)
            }
          >
            {isStruck ? 'restore' : 'strike'}
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
          {line.weighs && !isStruck && <Weights line={line} />}
        </div>
      </li>
    </>
  )
}

function Weights({ line }: { line: TapeLine }) {
  const up = line.weights.filter((w) => w.db > 0).slice(0, 2)
  const down = line.weights.filter((w) => w.db < 0).slice(0, 2)
  const shown = [...up, ...down]
  if (line.left_out || shown.length === 0)
    return (
      <p className="mt-0.5">
        <Chip>{WHY_NOT[line.left_out] ?? 'no weight'}</Chip>
      </p>
    )
  return (
    <p className="mt-1 flex flex-wrap gap-1" title="In decibans: ten is ten to one">
      {shown.map((w) => (
        <Chip key={w.part} tone={w.db > 0 ? 'ember' : 'clear'} className="figures">
          {w.name} {decibans(w.db)}
        </Chip>
      ))}
    </p>
  )
}

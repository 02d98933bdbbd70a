import { Link, useNavigate } from 'react-router'
import { money } from '@/lib/money'
import { Button } from '@/ui/button'
import { Notice, Panel } from '@/ui/panel'
import { useBegin, type Run, type Score } from './practice-queries'

/** Afterwards: what was hidden, what it came to beside the planner on the same unit, and move by move what cost more and why. */
export function Debrief({ run, score }: { run: Run; score: Score }) {
  const begin = useBegin()
  const navigate = useNavigate()
  const another = () => begin.mutate({ lesson: run.lesson, sheet: run.sheet, tells_each: run.tells_each, is_led: run.is_led }, { onSuccess: (next) => void navigate(`/practice/${next.id}`) })
  return (
    <div className="min-h-0 flex-1 space-y-4 overflow-y-auto p-4 lg:px-6">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="text-[1.6rem] leading-tight font-bold">{score.is_mastered ? 'Mastered' : score.is_repaired ? 'It works' : 'Not this time'}</h1>
        <p className="text-[1.1rem]">
          Hidden was: <b>{score.hidden.join(' and ')}</b>
        </p>
      </div>
      {run.is_led && <p>The next move was shown before each: such a unit masters no lesson. Play one without it.</p>}
      {begin.error && (
        <Notice tone="danger" title="That did not work" role="alert">
          {begin.error.message}
        </Notice>
      )}
      <dl className="grid max-w-250 grid-cols-2 gap-2.5 md:grid-cols-4">
        <Figure name="You" value={money(score.cents)} more={`${score.minutes.toFixed(0)} min`} />
        <Figure name="The planner, same unit" value={money(score.planner_cents)} more={`${score.planner_minutes.toFixed(0)} min`} />
        <Figure name="Parts that cured nothing" value={String(score.needless)} more="" />
        <Figure name="Risks taken" value={String(score.risks)} more={score.hints > 0 ? `${score.hints} ${score.hints === 1 ? 'hint' : 'hints'}` : ''} />
      </dl>
      {score.guess && (
        <p>
          First guess: <b>{score.guess}</b>
        </p>
      )}
      <p className="max-w-220 border-l-3 border-brass pl-3">{score.teaches}</p>
      <MoveByMove score={score} />
      <div className="flex flex-wrap gap-2">
        <Button kind="act" disabled={begin.isPending} onClick={another}>
          Another unit of this lesson
        </Button>
        <Link to="/practice" className="inline-flex min-h-11 items-center rounded-lg border border-ink/55 px-3.5">
          All lessons
        </Link>
      </div>
    </div>
  )
}

function MoveByMove({ score }: { score: Score }) {
  return (
    <Panel title="Move by move">
      <ol className="divide-y divide-line">
        {score.steps.map((s, n) => (
          <li key={n} className="grid gap-x-5 py-2 md:grid-cols-[2rem_minmax(0,1fr)_minmax(0,22rem)]">
            <span className="figures text-quiet">{n + 1}</span>
            <span>
              {s.did}
              <b className="block">{s.says}</b>
              {s.mishap && <span className="block text-danger">{s.mishap}</span>}
            </span>
            <span>
              {s.regret_cents > 0 ? (
                <>
                  <b className="figures">{money(s.regret_cents)}</b> more than the best: <i>{s.best}</i>
                </>
              ) : (
                <span className="text-quiet">{s.traps.length === 0 ? 'as good as any' : ''}</span>
              )}
              {s.traps.map((t) => (
                <b key={t} className="block text-ember-deep">
                  Trap: {t}
                </b>
              ))}
            </span>
          </li>
        ))}
      </ol>
    </Panel>
  )
}

function Figure({ name, value, more }: { name: string; value: string; more: string }) {
  return (
    <div className="rounded-lg border border-line bg-paper px-3.5 py-2.5">
      <dt className="text-tiny text-quiet">{name}</dt>
      <dd>
        <span className="figures text-[1.5rem] font-bold">{value}</span> <span className="text-quiet">{more}</span>
      </dd>
    </div>
  )
}

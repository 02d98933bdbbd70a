import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useMay } from '@/api/session'
import { useTitle } from '@/lib/use-title'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel, Waiting } from '@/ui/panel'
import { PracticeBand } from './practice-band'
import { useBegin, useClass, useLessons, type Lesson } from './practice-queries'

const FAMILIES: Record<string, string> = { tray: 'Tray drive', slot: 'Slot drive', lid: 'Drive under a lid' }

/** The lessons in an order of difficulty, and how far one is with each; for who runs the shop also how the class does. */
export function LessonsScreen() {
  useTitle('Practice')
  const asked = useLessons()
  const begin = useBegin()
  const navigate = useNavigate()
  const [tellsEach, setTellsEach] = useState(false)
  const start = (lesson: string) => begin.mutate({ lesson, tells_each: tellsEach }, { onSuccess: (run) => void navigate(`/practice/${run.id}`) })
  const mastered = asked.data?.filter((l) => l.is_mastered).length ?? 0
  return (
    <div className="flex min-h-full flex-col lg:h-full">
      <PracticeBand />
      <div className="min-h-0 flex-1 space-y-4 overflow-y-auto p-4 lg:px-6">
        <div className="max-w-220">
          <h1 className="text-[1.6rem] leading-tight font-bold">Practice</h1>
          <p className="text-quiet">A simulated unit with something hidden in it. You look, listen, measure and repair; the world answers, mistakes included. Afterwards each step is laid beside the best one.</p>
        </div>
        {(asked.error ?? begin.error) && (
          <Notice tone="danger" title="That did not work" role="alert">
            <p>{(asked.error ?? begin.error)?.message}</p>
            {asked.error && (
              <Button className="mt-1.5" onClick={() => void asked.refetch()}>
                Try again
              </Button>
            )}
          </Notice>
        )}
        {asked.isPending && <Waiting what="Fetching the lessons…" />}
        {asked.data && (
          <Panel title="Lessons" aside={`${mastered} of ${asked.data.length} mastered`}>
            <Telling isEach={tellsEach} onChange={setTellsEach} />
            <ol className="grid gap-2.5 md:grid-cols-2 xl:grid-cols-3">
              {asked.data.map((l) => (
                <li key={l.id}>
                  <LessonCard lesson={l} isBusy={begin.isPending} onStart={() => start(l.id)} />
                </li>
              ))}
            </ol>
          </Panel>
        )}
        <ClassPanel lessons={asked.data ?? []} />
      </div>
    </div>
  )
}

/** When what the planner would have done is told: decide first in either case. */
function Telling({ isEach, onChange }: { isEach: boolean; onChange: (isEach: boolean) => void }) {
  return (
    <div role="group" aria-label="When the planner’s move is told" className="mb-3 flex flex-wrap items-center gap-2">
      <span>Decide yourself first. What the planner would have done is told</span>
      {[false, true].map((each) => (
        <button
          key={String(each)}
          type="button"
          aria-pressed={isEach === each}
          onClick={() => onChange(each)}
          className={`min-h-11 rounded-lg border px-3.5 font-semibold ${isEach === each ? 'border-ink bg-ink text-paper' : 'border-ink/55 bg-paper'}`}
        >
          {each ? 'after each move' : 'at the end'}
        </button>
      ))}
    </div>
  )
}

function LessonCard({ lesson, isBusy, onStart }: { lesson: Lesson; isBusy: boolean; onStart: () => void }) {
  return (
    <div className="flex h-full flex-col rounded-lg border border-line p-3">
      <p className="flex flex-wrap items-baseline gap-x-2">
        <span className="figures text-quiet">{lesson.number}</span>
        <b className="text-[1.1rem]">{lesson.name}</b>
        {lesson.is_mastered && <Chip tone="clear">mastered</Chip>}
      </p>
      <p className="text-tiny text-quiet">
        {FAMILIES[lesson.family]}
        {lesson.tries > 0 && ` · ${lesson.tries === 1 ? 'one try' : `${lesson.tries} tries`}`}
        {lesson.best_times !== null && ` · at best ${lesson.best_times.toFixed(1)} times the planner’s cost`}
      </p>
      {lesson.tries > 0 && <p className="mt-1 text-quiet">{lesson.teaches}</p>}
      <div className="mt-auto flex flex-wrap gap-2 pt-2">
        {lesson.open_run !== null && (
          <Link to={`/practice/${lesson.open_run}`} className="inline-flex min-h-11 items-center rounded-lg border border-ink bg-ink px-3.5 font-semibold text-paper">
            Go on
          </Link>
        )}
        <Button disabled={isBusy} onClick={onStart} aria-label={`${lesson.tries > 0 ? 'Another unit' : 'Begin'}: ${lesson.name}`}>
          {lesson.tries > 0 || lesson.open_run !== null ? 'Another unit' : 'Begin'}
        </Button>
      </div>
    </div>
  )
}

function ClassPanel({ lessons }: { lessons: readonly Lesson[] }) {
  const maySee = useMay('shop')
  const asked = useClass(maySee)
  if (!maySee || !asked.data) return null
  const nameOf = (id: string) => lessons.find((l) => l.id === id)?.name ?? id
  return (
    <Panel title="The class" aside="names stay in this shop">
      {asked.data.length === 0 ? (
        <p className="text-quiet">Nobody has finished a practice unit yet.</p>
      ) : (
        <table className="w-full text-left">
          <thead>
            <tr className="border-b border-line text-quiet">
              <th scope="col" className="py-1.5 pr-4 font-normal">Who</th>
              <th scope="col" className="py-1.5 pr-4 font-normal">Mastered</th>
              <th scope="col" className="py-1.5 pr-4 font-normal">Tries</th>
              <th scope="col" className="py-1.5 pr-4 font-normal">Times the planner’s cost</th>
              <th scope="col" className="py-1.5 font-normal">Traps walked into most</th>
            </tr>
          </thead>
          <tbody>
            {asked.data.map((p) => (
              <tr key={p.name} className="border-b border-line align-top last:border-0">
                <th scope="row" className="py-2 pr-4">{p.name}</th>
                <td className="py-2 pr-4">{p.mastered.length === 0 ? 'none yet' : `${p.mastered.length}: ${p.mastered.map(nameOf).join(', ')}`}</td>
                <td className="figures py-2 pr-4">{p.tries}</td>
                <td className="figures py-2 pr-4">{p.mean_times?.toFixed(1) ?? ''}</td>
                <td className="py-2">{p.traps.join('; ') || 'none'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Panel>
  )
}

import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useMay } from '@/api/session'
import { useTitle } from '@/lib/use-title'
import { Button } from '@/ui/button'
import { Select } from '@/ui/field'
import { Chip, Notice, Panel, Waiting } from '@/ui/panel'
import { PracticeBand } from './practice-band'
import { FAMILIES, useBegin, useClass, useLessons, useOwnDrives, type Lesson } from './practice-queries'

/** The lessons in an order of difficulty, and how far one is with each; for who runs the shop also how the class does. */
export function LessonsScreen() {
  useTitle('Practice')
  const asked = useLessons()
  const begin = useBegin()
  const navigate = useNavigate()
  const [tells, setTells] = useState<Tells>('end')
  const own = useOwnDrives()
  const [sheet, setSheet] = useState('')
  const drive = own.data?.find((d) => String(d.sheet) === sheet)
  const start = (lesson: string) => begin.mutate({ lesson, sheet: drive?.sheet ?? null, tells_each: tells === 'each', is_led: tells === 'before' }, { onSuccess: (run) => void navigate(`/practice/${run.id}`) })
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
            <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2.5">
              <Telling tells={tells} onChange={setTells} />
              <div className="min-w-72">
                <Select label="On which drive" empty="The lesson’s own, well equipped" choices={(own.data ?? []).map((d) => ({ id: String(d.sheet), label: d.name }))} value={sheet} onChange={setSheet} />
              </div>
              {own.error && (
                <p role="alert" className="flex items-center gap-2 text-danger">
                  Your own drives could not be fetched.
                  <Button onClick={() => void own.refetch()}>Try again</Button>
                </p>
              )}
            </div>
            {drive && <p className="mb-3 text-quiet">{drive.lessons.length} of {asked.data.length} lessons can be played on this drive; the others hide what it does not have.</p>}
            <ol className="grid gap-2.5 md:grid-cols-2 xl:grid-cols-3">
              {asked.data.map((l) => (
                <li key={l.id}>
                  <LessonCard lesson={l} isBusy={begin.isPending || (drive !== undefined && !drive.lessons.includes(l.id))} onStart={() => start(l.id)} />
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

const TELLS = { end: 'at the end', each: 'after each move', before: 'before each: led, and nothing is mastered' } as const
type Tells = keyof typeof TELLS

/** When what the planner would do is told. */
function Telling({ tells, onChange }: { tells: Tells; onChange: (tells: Tells) => void }) {
  return (
    <fieldset>
      <legend className="mb-1">What the planner would do is told</legend>
      <div className="flex flex-wrap gap-2">
        {(Object.keys(TELLS) as Tells[]).map((when) => (
          <button
            key={when}
            type="button"
            aria-pressed={tells === when}
            onClick={() => onChange(when)}
            className={`min-h-11 rounded-lg border px-3.5 font-semibold ${tells === when ? 'border-ink bg-ink text-paper' : 'border-ink/55 bg-paper'}`}
          >
            {TELLS[when]}
          </button>
        ))}
      </div>
    </fieldset>
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

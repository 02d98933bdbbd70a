import { useState } from 'react'
import { Link } from 'react-router'
import type { UnitMat } from '@/api/types'
import { minutes } from '@/lib/words'
import { Asked } from '@/ui/asked'
import { Dialog } from '@/ui/dialog'
import { Choice, Select } from '@/ui/field'
import { Notice } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { MatKeys } from '../frame/mat-keys'
import { MatPicture } from './mat-picture'
import { useUnitMat, type MatStep, type MoveOn } from './mat-queries'
import { RecordedSteps, RecordStep } from './record-step'
import { ScrewGroups } from './screw-groups'
import { AllDone, StepCard } from './step-card'

type Direction = 'in' | 'back'
const WAYS = [
  { id: 'in', label: 'Open it' },
  { id: 'back', label: 'Put it back' },
] as const

/** Opening and shutting the unit: the next step, the rest of the way, and where every screw is. */
export function MatDialog({ startBack, onClose }: { startBack: boolean; onClose: () => void }) {
  const { job } = useBench()
  const [goal, setGoal] = useState('')
  const [way, setWay] = useState<Direction>(startBack ? 'back' : 'in')
  const mat = useUnitMat(job, goal)
  return (
    <Dialog title={`Open and shut ${job.tag}`} open isWide onClose={onClose}>
      <Asked of={mat} what="the mat">
        {(found) =>
          found.steps.length === 0 ? (
            <div className="space-y-3">
              <NoOrder />
              <RecordStep mat={found} />
            </div>
          ) : (
            <MatKeys enter="steps">
              <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
                <Choice label="Which way?" choices={WAYS} value={way} onChange={(id) => setWay(id as Direction)} />
                {way === 'in' && <Select label="How far?" choices={found.goals.map((g) => ({ id: g.id, label: g.name }))} value={found.goal} onChange={setGoal} />}
              </div>
              <Mat mat={found} isBack={way === 'back'} />
              {found.to_record.length > 0 && way === 'in' && <Recording mat={found} />}
            </MatKeys>
          )
        }
      </Asked>
    </Dialog>
  )
}

/** Of the console or the drive nobody has said how it is opened: its steps are written down as they are done. */
function Recording({ mat }: { mat: UnitMat }) {
  return (
    <details className="mt-4" open={mat.recorded.length > 0}>
      <summary className="min-h-11 content-center font-semibold">
        {mat.to_record.length > 1 ? 'The sheets end here' : `Of the ${mat.to_record[0]} no sheet says how it is opened`}: write the next step down
      </summary>
      <div className="mt-2 space-y-3">
        <RecordStep key={mat.recorded.length} mat={mat} />
        <RecordedSteps mat={mat} />
      </div>
    </details>
  )
}

function NoOrder() {
  const { job } = useBench()
  return (
    <Notice title="Nobody has written yet how this unit is opened">
      <p>Write each step down as you do it: it is kept with this job, has to go back before the unit is shut, and becomes the order of its sheets.</p>
      <p className="mt-1">
        <Link className="inline-flex min-h-11 items-center underline underline-offset-2" to={`/drives/${job.drive.variant}`}>
          The sheets of {job.drive.variant}
        </Link>
      </p>
    </Notice>
  )
}

function Mat({ mat, isBack }: { mat: UnitMat; isBack: boolean }) {
  const way = isBack ? mat.way_back : mat.way_in
  const byId = new Map(mat.steps.map((s) => [s.id, s]))
  const next = way.moves[0]
  const step = next && byId.get(next.step)
  const goal = mat.goals.find((g) => g.id === mat.goal)?.name ?? ''
  return (
    <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div className="min-w-0 space-y-3">
        {step && next ? <StepCard key={`${step.id}${isBack}`} step={step} move={next} isBack={isBack} /> : <AllDone isBack={isBack} goal={goal} />}
        {way.moves.length > 1 && <Rest moves={way.moves.slice(1)} byId={byId} total={way.minutes} />}
      </div>
      <Places mat={mat} next={step} />
    </div>
  )
}

function Rest({ moves, byId, total }: { moves: readonly MoveOn[]; byId: ReadonlyMap<string, MatStep>; total: number }) {
  return (
    <section aria-label="The rest of the way">
      <p className="mb-1 text-quiet">
        Then {moves.length} more, about {minutes(total)} in all:
      </p>
      <ol className="columns-1 gap-6 sm:columns-2">
        {moves.map((m) => (
          <li key={m.step} className="break-inside-avoid py-0.5">
            {m.turn_to && <span className="text-tiny text-quiet">turn: {m.turn_to} up · </span>}
            {byId.get(m.step)?.name}
            {m.falls.length > 0 && <span className="text-tiny text-brass"> · hold what falls</span>}
          </li>
        ))}
      </ol>
    </section>
  )
}

/** The places of console or drive; the one that the next step is about comes first. */
function Places({ mat, next }: { mat: UnitMat; next: MatStep | undefined }) {
  const [picked, setPicked] = useState<'console' | 'drive' | null>(null)
  const own = next ? (next.is_outside ? 'console' : 'drive') : mat.steps.some((s) => s.is_open && !s.is_outside) ? 'drive' : 'console'
  const whose = picked ?? own
  const groups = mat.steps.filter((s) => s.is_outside === (whose === 'console')).flatMap((s) => s.groups)
  return (
    <section aria-label="Where every screw is" className="min-w-0 space-y-2">
      <Choice
        label="Screws of"
        choices={[
          { id: 'console', label: 'the console' },
          { id: 'drive', label: 'the drive' },
        ]}
        value={whose}
        onChange={(id) => setPicked(id as 'console' | 'drive')}
      />
      <MatPicture groups={groups} now={next?.groups.map((g) => g.id) ?? []} says={mat.says.join(' ')} whose={whose === 'console' ? 'The console' : 'The drive'} />
      {mat.says.map((t) => (
        <p key={t} className="text-tiny">
          {t}
        </p>
      ))}
      <ScrewGroups groups={groups} />
    </section>
  )
}

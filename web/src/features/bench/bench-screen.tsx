import { lazy, Suspense, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { useMay } from '@/api/session'
import type { Drive, Job, Suspect } from '@/api/types'
import { kept } from '@/lib/kept'
import { useKeys, type Keys } from '@/lib/use-keys'
import { useTitle } from '@/lib/use-title'
import { Button } from '@/ui/button'
import { Notice, Waiting } from '@/ui/panel'
import { BarPlace } from './frame/bar'
import { BenchContext, useBench, type Bench } from './frame/bench-context'
import { CustodyStrip, TakeOutDialog } from './parts/custody-strip'
import { ConflictDialog, KeysDialog } from './frame/dialogs'
import { Holds } from './frame/holds'
import { WaitingFiles } from './frame/waiting-files'
import { IdentifyDialog, IdentityNotice, type IdentifyProp } from './tape/drive-identity'
import { FindingDialog } from './tape/finding-dialog'
import { MeasureDialog, type MeasureProp } from './tape/measure-dialog'
import type { SaveNotes, Send } from './frame/asks'
import { useJob, useJobWrites } from './frame/job-writes'
import { MainsSwitch } from './frame/mains-switch'
import { Mat } from './mat'
import { OnTrialStrip } from './parts/on-trial'
import { usePulse } from './frame/pulse'
import { OwnerDialog } from './owner/owner-dialog'
import { PartDialog } from './parts/part-dialog'
import { Stub } from './tape/stub'
import { Tape } from './tape/tape'
import { TrialDialog } from './tape/trial-dialog'

// what a bench opens now and then comes when it is asked for
const MatDialog = lazy(async () => ({ default: (await import('./opening/mat-dialog')).MatDialog }))
const ListenDialog = lazy(async () => ({ default: (await import('./listening/listen-dialog')).ListenDialog }))
const PhotosDialog = lazy(async () => ({ default: (await import('./photos/photos-dialog')).PhotosDialog }))

interface Props {
  tag: string
  plan: (drive: Drive, parts: readonly Suspect[]) => ReactNode
  counter: (job: Job, onSave: SaveNotes) => ReactNode
  identify: IdentifyProp
  measure: MeasureProp
}

type Open = { what: 'measure'; question: string } | { what: 'finding' | 'reading' | 'keys' | 'part' | 'drive' | 'out' | 'owner' | 'photos' | 'sounds' } | { what: 'mat'; isBack: boolean | null } | { what: 'trial'; repair: string } | null

/** Stub, mat and tape: three places that never move. What changes between stages is the mat alone. */
export function BenchScreen({ tag, plan, counter, identify, measure }: Props) {
  const asked = useJob(tag)
  const writes = useJobWrites(tag)
  const mayBench = useMay('bench')
  const [open, setOpen] = useState<Open>(null)
  const [bar, setBar] = useState<HTMLElement | null>(null)
  const job = asked.data
  const mayWork = mayBench && job?.stage !== 'closed'
  const mat = useFromTheTop(job?.stage)
  useTitle(`${tag} ${job?.drive.console ?? ''}`)
  const isBusy = writes.pending !== null
  const others = usePulse(tag, job?.version, isBusy)
  useEffect(() => {
    if (job) kept.write('last-tag', job.tag)
  }, [job])
  useBenchKeys(job, writes.send, mayWork, setOpen)
  const bench = useMemo<Bench | null>(() => (job ? { job, send: writes.send, isBusy, mayWork, onTheWay: writes.onTheWay, measure: (question) => setOpen({ what: 'measure', question }), openMat: (of) => setOpen({ what: 'mat', isBack: of?.isBack ?? null }) } : null), [job, writes.send, isBusy, mayWork, writes.onTheWay])
  if (asked.isPending) return <Waiting what={`Fetching ${tag}…`} />
  if (!bench) return <NotOpened tag={tag} error={asked.error} onAgain={() => void asked.refetch()} />
  return (
    <BenchContext value={bench}>
      <MainsSwitch />
      <div className="flex h-full min-h-0 flex-col lg:flex-row">
        <Stub onIdentify={() => setOpen({ what: 'drive' })} onTakeOut={() => setOpen({ what: 'out' })} onOwner={() => setOpen({ what: 'owner' })} onPhotos={() => setOpen({ what: 'photos' })} onSounds={() => setOpen({ what: 'sounds' })} others={others} />
        <div className="flex min-h-0 min-w-0 flex-1 flex-col max-lg:order-first max-lg:flex-none">
          <p className="flex flex-wrap items-baseline gap-x-2 border-b border-line bg-paper px-3.5 py-1 lg:hidden" aria-hidden="true">
            <b className="figures text-[1.1rem]">{job!.tag}</b> {job!.drive.console} <span className="text-quiet">{job!.stages.find((s) => s.state === 'now')?.name}</span>
          </p>
        <BarPlace value={bar}>
        <div ref={mat} className="mat-grid relative min-h-0 min-w-0 flex-1 overflow-y-auto">
          <div className="mx-auto max-w-5xl space-y-3.5 p-3.5 pt-4.5" aria-busy={isBusy}>
            <Messages writes={writes} />
            <Holds />
            <WaitingFiles />
            <CustodyStrip />
            <OnTrialStrip />
            <IdentityNotice />
            <Mat plan={plan} counter={counter} onTrial={(repair) => setOpen({ what: 'trial', repair })} onPart={() => setOpen({ what: 'part' })} />
          </div>
        </div>
        </BarPlace>
        <div ref={setBar} role="region" aria-label="Now" className="max-h-[45vh] overflow-y-auto border-t-[1.5px] border-ink bg-paper px-3.5 py-2.5 empty:hidden max-lg:sticky max-lg:bottom-0 max-lg:z-20" />
        </div>
        <Tape onFinding={() => setOpen({ what: 'finding' })} onReading={() => setOpen({ what: 'measure', question: asksNow(job!) })} onTrial={() => setOpen({ what: 'trial', repair: '' })} onKeys={() => setOpen({ what: 'keys' })} />
      </div>
      <Suspense>
      <OpenDialog open={open} identify={identify} counter={counter} measure={measure} onOpen={setOpen} onClose={() => setOpen(null)} />
      </Suspense>
      <ConflictDialog conflict={writes.conflict} onResend={writes.resend} onLeaveOut={writes.leaveOut} />
    </BenchContext>
  )
}

/** A stage begins at its top. */
function useFromTheTop(stage: string | undefined) {
  const mat = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (mat.current) mat.current.scrollTop = 0
  }, [stage])
  return mat
}

function Messages({ writes }: { writes: ReturnType<typeof useJobWrites> }) {
  return (
    <div aria-live="polite" className="space-y-2 empty:hidden">
      {writes.waits && writes.pending && (
        <Notice tone="brass" title="Not answered yet: kept here, sent again by itself">
          <p>{writes.waits}</p>
          <p className="font-semibold">{writes.pending.says}</p>
          <div className="mt-1.5 flex flex-wrap gap-2">
            <Button onClick={writes.again}>Send it now</Button>
            <Button kind="quiet" onClick={writes.giveUp}>
              Leave it out
            </Button>
          </div>
        </Notice>
      )}
      {writes.problem && (
        <Notice tone="danger" title="Not written" role="alert">
          <p>{writes.problem.title}</p>
          <Button className="mt-1.5" onClick={writes.clearProblem}>
            Understood
          </Button>
        </Notice>
      )}
    </div>
  )
}

/** The single keys of the whole bench; Enter and the digits belong to the mat. */
function useBenchKeys(job: Job | undefined, send: Send, mayWork: boolean, open: (what: Open) => void): void {
  const last = job?.tape.findLast((l) => l.is_finding)
  const strikeLast = () => {
    if (last?.struck_by) send({ do: 'restore', line: last.number }, 'Let the last finding stand again')
    else if (last) send({ do: 'strike', line: last.number, why: '' }, `Strike: ${last.text}`)
  }
  const work: Keys = {
    m: () => open({ what: 'measure', question: job ? asksNow(job) : '' }),
    t: () => open({ what: 'trial', repair: '' }),
    u: strikeLast,
    i: () => open({ what: 'drive' }),
    o: () => open({ what: 'out' }),
  }
  useKeys({ f: () => open({ what: 'finding' }), d: () => open({ what: 'owner' }), c: () => open({ what: 'mat', isBack: null }), h: () => open({ what: 'photos' }), s: () => open({ what: 'sounds' }), '?': () => open({ what: 'keys' }), ...(mayWork ? work : {}) })
}

/** The question that is on the bench now. */
const asksNow = (job: Job): string => (job.diagnosis.moves[0]?.kind === 'ask' ? job.diagnosis.moves[0].id : '')

function OpenDialog({ open, identify, counter, measure, onOpen, onClose }: { open: Open; onOpen: (what: Open) => void; onClose: () => void } & Pick<Props, 'identify' | 'counter' | 'measure'>) {
  switch (open?.what) {
    case 'owner':
      return <OwnerDialog counter={counter} onClose={onClose} />
    case 'finding':
      return <FindingDialog onlyReadings={false} onClose={onClose} />
    case 'measure':
      return <MeasureDialog measure={measure} question={open.question} onWithout={() => onOpen({ what: 'reading' })} onClose={onClose} />
    case 'reading':
      return <FindingDialog onlyReadings onClose={onClose} />
    case 'mat':
      return <OpenAndShut isBack={open.isBack} onClose={onClose} />
    case 'photos':
      return <PhotosDialog onClose={onClose} />
    case 'sounds':
      return <ListenDialog onClose={onClose} />
    case 'part':
      return <PartDialog onClose={onClose} />
    case 'drive':
      return <IdentifyDialog identify={identify} onClose={onClose} />
    case 'out':
      return <TakeOutDialog onClose={onClose} />
    case 'trial':
      return <TrialDialog repair={open.repair} onClose={onClose} />
    case 'keys':
      return <KeysDialog open onClose={onClose} />
    default:
      return null
  }
}

/** In Prove and after it the unit goes back together; before that it comes apart. */
function OpenAndShut({ isBack, onClose }: { isBack: boolean | null; onClose: () => void }) {
  const { job } = useBench()
  return <MatDialog startBack={isBack ?? ['prove', 'hand_back', 'closed'].includes(job.stage)} onClose={onClose} />
}

function NotOpened({ tag, error, onAgain }: { tag: string; error: Error | null; onAgain: () => void }) {
  return (
    <div className="p-8">
      <Notice tone="danger" title={`${tag} could not be opened`} role="alert">
        <p>{error?.message}</p>
        <Button className="mt-2" onClick={onAgain}>
          Try again
        </Button>
      </Notice>
    </div>
  )
}

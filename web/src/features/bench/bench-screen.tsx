import { useEffect, useMemo, useState, type ReactNode } from 'react'
import { useMay } from '@/api/session'
import type { Drive, Job, Suspect } from '@/api/types'
import { kept } from '@/lib/kept'
import { useKeys, type Keys } from '@/lib/use-keys'
import { Button } from '@/ui/button'
import { Notice, Waiting } from '@/ui/panel'
import { BenchContext, type Bench } from './frame/bench-context'
import { CustodyStrip, TakeOutDialog } from './parts/custody-strip'
import { ConflictDialog, KeysDialog } from './frame/dialogs'
import { Holds } from './frame/holds'
import { IdentifyDialog, IdentityNotice, type IdentifyProp } from './tape/drive-identity'
import { FindingDialog } from './tape/finding-dialog'
import { useJob, useJobWrites, type SaveNotes, type Send } from './frame/job-writes'
import { MainsSwitch } from './frame/mains-switch'
import { Mat } from './mat'
import { OnTrialStrip } from './parts/on-trial'
import { PartDialog } from './parts/part-dialog'
import { Stub } from './tape/stub'
import { Tape } from './tape/tape'
import { TrialDialog } from './tape/trial-dialog'

interface Props {
  tag: string
  plan: (drive: Drive, parts: readonly Suspect[]) => ReactNode
  counter: (job: Job, onSave: SaveNotes) => ReactNode
  identify: IdentifyProp
}

type Open = { what: 'finding' | 'reading' | 'keys' | 'part' | 'drive' | 'out' } | { what: 'trial'; repair: string } | null

/** Stub, mat and tape: three places that never move. What changes between stages is the mat alone. */
export function BenchScreen({ tag, plan, counter, identify }: Props) {
  const asked = useJob(tag)
  const writes = useJobWrites(tag)
  const mayWork = useMay('bench')
  const [open, setOpen] = useState<Open>(null)
  const job = asked.data
  const isBusy = writes.pending !== null
  useEffect(() => {
    if (job) kept.write('last-tag', job.tag)
  }, [job])
  useBenchKeys(job, writes.send, mayWork, setOpen)
  const bench = useMemo<Bench | null>(() => (job ? { job, send: writes.send, isBusy, mayWork } : null), [job, writes.send, isBusy, mayWork])
  if (asked.isPending) return <Waiting what={`Fetching ${tag}…`} />
  if (!bench) return <NotOpened tag={tag} error={asked.error} onAgain={() => void asked.refetch()} />
  return (
    <BenchContext value={bench}>
      <MainsSwitch />
      <div className="flex h-full min-h-0 flex-col lg:flex-row">
        <Stub onIdentify={() => setOpen({ what: 'drive' })} onTakeOut={() => setOpen({ what: 'out' })} />
        <div className="mat-grid relative min-h-0 min-w-0 flex-1 overflow-y-auto">
          <div className="mx-auto max-w-5xl space-y-4 p-4" aria-busy={isBusy}>
            <Messages writes={writes} />
            <Holds />
            <CustodyStrip />
            <OnTrialStrip />
            <IdentityNotice />
            <Mat plan={plan} counter={counter} onTrial={(repair) => setOpen({ what: 'trial', repair })} onPart={() => setOpen({ what: 'part' })} />
          </div>
        </div>
        <Tape onFinding={() => setOpen({ what: 'finding' })} onReading={() => setOpen({ what: 'reading' })} onTrial={() => setOpen({ what: 'trial', repair: '' })} />
      </div>
      <OpenDialog open={open} identify={identify} onClose={() => setOpen(null)} />
      <ConflictDialog conflict={writes.conflict} onResend={writes.resend} onLeaveOut={writes.leaveOut} />
    </BenchContext>
  )
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
    m: () => open({ what: 'reading' }),
    t: () => open({ what: 'trial', repair: '' }),
    u: strikeLast,
    i: () => open({ what: 'drive' }),
    o: () => open({ what: 'out' }),
  }
  useKeys({ f: () => open({ what: 'finding' }), '?': () => open({ what: 'keys' }), ...(mayWork ? work : {}) })
}

function OpenDialog({ open, identify, onClose }: { open: Open; identify: IdentifyProp; onClose: () => void }) {
  switch (open?.what) {
    case 'finding':
      return <FindingDialog onlyReadings={false} onClose={onClose} />
    case 'reading':
      return <FindingDialog onlyReadings onClose={onClose} />
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

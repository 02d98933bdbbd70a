import { useState, type ReactNode } from 'react'
import { percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Notice } from '@/ui/panel'
import { useBench } from '../frame/bench-context'

export type Looks = Record<string, string>
/** How to find the drive by looking: called back with a sheet that was picked, and what was seen so far. */
export type IdentifyProp = (start: Looks, onPick: (sheetId: number, looks: Looks) => void) => ReactNode

/** When what the eye saw speaks for another drive than the sheet in use, or the sheet has a newer version: said, with the way to change it. */
export function IdentityNotice() {
  const { job, send, isBusy, mayWork } = useBench()
  const best = job.identity[0]
  const ours = job.identity.find((i) => i.is_ours)
  const isOther = best !== undefined && !best.is_ours && best.p >= 0.5
  return (
    <>
      {isOther && (
        <Notice tone="brass" title={`This looks like a ${best.variant}, not a ${job.drive.variant}`}>
          <p className="max-w-[75ch]">
            By what was seen inside: {best.variant} {percent(best.p)}
            {ours && `, ${ours.variant} ${percent(ours.p)}`}. A label can be swapped, and covers move between units; the inside counts.
            {best.against.length > 0 && ` Speaks against ${best.variant}: ${best.against.join(' ')}`}
          </p>
          {mayWork && (
            <Button className="mt-2" disabled={isBusy} onClick={() => send({ do: 'identify', looks: {}, sheet_id: best.sheet_id }, `Take the sheet of ${best.variant}`)}>
              Take the sheet of {best.variant}
            </Button>
          )}
        </Notice>
      )}
      {job.newer_sheet_id !== null && (
        <Notice title={`The sheet of ${job.drive.variant} has a newer version`}>
          <p>This job keeps version {job.sheet_version} until somebody takes the newer one for it.</p>
          {mayWork && (
            <Button className="mt-2" disabled={isBusy} onClick={() => send({ do: 'identify', looks: {}, sheet_id: job.newer_sheet_id }, 'Take the newer sheet')}>
              Take the newer version
            </Button>
          )}
        </Notice>
      )}
    </>
  )
}

/** The key at the bench: what is seen goes onto the tape, with or without another sheet. */
export function IdentifyDialog({ identify, onClose }: { identify: IdentifyProp; onClose: () => void }) {
  const { job, send } = useBench()
  const [start] = useState(job.looks)
  return (
    <Dialog title={`Which drive is in ${job.tag}?`} open onClose={onClose} note={`The sheet in use is that of ${job.drive.variant}.`}>
      {identify(start, (sheetId, looks) => {
        send({ do: 'identify', looks, sheet_id: sheetId }, 'What the eye saw of the drive')
        onClose()
      })}
    </Dialog>
  )
}

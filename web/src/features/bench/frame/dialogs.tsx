import { lazy, Suspense } from 'react'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { timeOf } from '@/lib/dates'
import type { Conflict } from './asks'

export function ConflictDialog({ conflict, onResend, onLeaveOut }: { conflict: Conflict | null; onResend: () => void; onLeaveOut: () => void }) {
  return (
    <Dialog title="Somebody else wrote to this job meanwhile" open={conflict !== null} onClose={onLeaveOut} note="Nothing is lost. Look at what changed, then decide about yours.">
      {conflict && (
        <>
          <h3 className="font-bold">What changed</h3>
          <ul className="mb-3 list-disc pl-5">
            {conflict.changed.map((c) => (
              <li key={c.at + c.text}>
                {timeOf(c.at)} {c.by}: {c.text}
              </li>
            ))}
          </ul>
          <h3 className="font-bold">Yours, not written yet</h3>
          <p className="mb-4">{conflict.pending.says}</p>
          <div className="flex flex-wrap gap-2">
            <Button kind="act" onClick={onResend}>
              Write mine now
            </Button>
            <Button onClick={onLeaveOut}>Leave mine out</Button>
          </div>
        </>
      )}
    </Dialog>
  )
}

const WordsList = lazy(async () => ({ default: (await import('@/ui/words-list')).WordsList }))

const KEYS: readonly (readonly [string, string])[] = [
  ['1 to 9', 'give that answer'],
  ['0', "can't tell"],
  ['Enter', 'do the next move, or go on'],
  ['R', 'try the last stage again, and count'],
  ['N', 'show the alternative beside the next move, and back'],
  ['W', 'what each answer would do'],
  ['P', 'the signal path beside the next move'],
  ['X', 'swaps, and parts for this job'],
  ['G', 'what the schools would cost'],
  ['F', 'log a finding that was not asked for'],
  ['M', 'measure: a reading, or a calculator of the bench'],
  ['T', 'log a trial after a change'],
  ['D', 'the owner, tag and papers, and what was written down wrongly'],
  ['I', 'which drive is it? by what the eye can see'],
  ['O', 'an own part leaves the unit'],
  ['C', 'open and shut the unit: each step, each screw in its place'],
  ['H', 'photos: take one, set dots on it, let the owner have it'],
  ['S', 'sounds: record the drive, see what is heard, take it as an answer'],
  ['B', 'parts that fit: the shelf, donors, what is on its way'],
  ['V', 'levels of repair compared, and swap plans'],
  ['U', 'strike the last finding, or let it stand again'],
  ['L', 'mains live or out'],
  ['A', 'lift what keeps the mains out by hand, with its reason'],
  ['/', 'scan a tag or search'],
  ['?', 'this list, and what words mean'],
]

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog title="Keys and words" open={open} onClose={onClose}>
      <dl className="grid grid-cols-[6rem_minmax(0,1fr)] gap-y-1.5">
        {KEYS.map(([key, does]) => (
          <div key={key} className="contents">
            <dt className="figures font-bold">{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <details className="mt-3 border-t border-line pt-1">
        <summary className="min-h-11 cursor-pointer content-center font-semibold">Words, and what they mean here</summary>
        <Suspense>
          <WordsList />
        </Suspense>
      </details>
    </Dialog>
  )
}

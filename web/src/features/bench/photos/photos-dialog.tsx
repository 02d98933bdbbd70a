import { useState } from 'react'
import { useMay } from '@/api/session'
import type { Photo } from '@/api/types'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { TextField } from '@/ui/field'
import { useBench } from '../frame/bench-context'
import { PhotoFrame } from './photo-frame'
import { TakePhoto } from './take-photo'

const MOMENTS: Record<string, string> = { before: 'Before', now: 'Now', free: 'Photo' }
const MOST_DOTS = 12

/** Every photo of a job; one is opened to set numbered dots on it, or to let the owner have it. */
export function PhotosDialog({ onClose }: { onClose: () => void }) {
  const { job } = useBench()
  const [picked, setPicked] = useState<number | null>(null)
  const [says, setSays] = useState('')
  const photo = job.photos.find((p) => p.line === picked)
  return (
    <Dialog title={`Photos of ${job.tag}`} open isWide onClose={onClose}>
      {photo ? (
        <Open key={photo.line} photo={photo} onBack={() => setPicked(null)} />
      ) : (
        <div className="space-y-3">
          <div className="flex flex-wrap items-end gap-3">
            <div className="min-w-64 flex-1">
              <TextField label="What does the next one show?" value={says} maxLength={120} onChange={(e) => setSays(e.target.value)} />
            </div>
            <TakePhoto of="" moment="free" says={says.trim()} label="Take a photo" />
          </div>
          {job.photos.length === 0 && <p className="text-quiet">No photo yet. One before a flex, a route or anything with a way round is undone saves a search at closing.</p>}
          <ul className="grid gap-3 sm:grid-cols-2 lg:grid-cols-3">
            {job.photos.toReversed().map((p) => (
              <li key={p.line}>
                <PhotoFrame photo={p} title={MOMENTS[p.moment] ?? 'Photo'} />
                <Button kind="quiet" onClick={() => setPicked(p.line)} aria-label={`Open the photo ${p.about || p.line}`}>
                  {p.for_owner ? 'For the owner · dots' : 'Dots, for the owner'}
                </Button>
              </li>
            ))}
          </ul>
        </div>
      )}
    </Dialog>
  )
}

function Open({ photo, onBack }: { photo: Photo; onBack: () => void }) {
  const { job, send, isBusy, mayWork: mayBench } = useBench()
  const mayNote = useMay('note') && job.stage !== 'closed'
  const [dots, setDots] = useState(photo.dots)
  const [forOwner, setForOwner] = useState(photo.for_owner)
  const isChanged = JSON.stringify([dots, forOwner]) !== JSON.stringify([photo.dots, photo.for_owner])
  const add = (x: number, y: number) => dots.length < MOST_DOTS && setDots([...dots, { x: round(x), y: round(y), says: '' }])
  const keep = () => {
    send({ do: 'mark_photo', line: photo.line, dots, for_owner: forOwner }, 'Dots on a photo')
    onBack()
  }
  const strike = () => {
    send({ do: 'strike', line: photo.line, why: 'not of this job' }, 'A photo off this job')
    onBack()
  }
  return (
    <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <PhotoFrame photo={{ ...photo, dots }} title={MOMENTS[photo.moment] ?? 'Photo'} onPoint={mayNote ? add : undefined} />
      <div className="space-y-3">
        <p className="text-quiet">Press on the photo to set a dot; a remark or a step can then speak of “dot 3”.</p>
        {mayNote && <Button onClick={() => add(50, 50)}>A dot in the middle</Button>}
        {dots.map((d, n) => (
          <div key={n} className="flex items-end gap-2">
            <div className="flex-1">
              <TextField label={`Dot ${n + 1}`} value={d.says} maxLength={120} onChange={(e) => setDots(dots.map((x, k) => (k === n ? { ...x, says: e.target.value } : x)))} />
            </div>
            <Button kind="quiet" onClick={() => setDots(dots.filter((_, k) => k !== n))} aria-label={`Take dot ${n + 1} away`}>
              away
            </Button>
          </div>
        ))}
        <label className="flex min-h-11 items-center gap-2.5">
          <input type="checkbox" className="size-6" checked={forOwner} onChange={(e) => setForOwner(e.target.checked)} />
          The owner may have it: it stands on the report
        </label>
        <div className="flex flex-wrap gap-2">
          <Button kind="act" disabled={!isChanged || isBusy || !mayNote} onClick={keep}>
            Keep it
          </Button>
          <Button onClick={onBack}>Back to all photos</Button>
          {mayBench && (
            <Button kind="quiet" disabled={isBusy} onClick={strike}>
              Off this job
            </Button>
          )}
        </div>
      </div>
    </div>
  )
}

const round = (percent: number): number => Math.round(Math.min(100, Math.max(0, percent)) * 10) / 10

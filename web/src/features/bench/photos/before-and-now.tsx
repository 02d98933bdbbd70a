import type { Photo } from '@/api/types'
import { useBench } from '../frame/bench-context'
import { PhotoFrame } from './photo-frame'

/** The newest photo of a step from before it was done, beside the newest of how it is now. */
export function BeforeAndNow({ of }: { of: string }) {
  const { job } = useBench()
  const newest = (moment: Photo['moment']) => job.photos.filter((p) => p.of === of && p.moment === moment).at(-1)
  const shown = [
    ['Before', newest('before')],
    ['Now', newest('now')],
  ] as const
  if (!shown.some(([, p]) => p)) return null
  return (
    <div className="mt-2 grid gap-2 sm:grid-cols-2">
      {shown.map(([name, photo]) => photo && <PhotoFrame key={name} photo={photo} title={name} />)}
    </div>
  )
}

import type { Photo } from '@/api/types'
import { timeOf } from '@/lib/dates'
import { addressOf } from '@/lib/pictures'

/** A photo with its numbered dots; what they are stands under it. */
export function PhotoFrame({ photo, title, onPoint }: { photo: Photo; title: string; onPoint?: ((x: number, y: number) => void) | undefined }) {
  const alt = `${title}${photo.about ? `: ${photo.about}` : ''}, by ${photo.by} at ${timeOf(photo.at)}`
  return (
    <figure className="min-w-0">
      <div
        className="relative overflow-hidden rounded-lg border border-line bg-ink"
        onClick={
          onPoint &&
          ((e) => {
            const box = e.currentTarget.getBoundingClientRect()
            onPoint((100 * (e.clientX - box.left)) / box.width, (100 * (e.clientY - box.top)) / box.height)
          })
        }
      >
        <img src={addressOf(photo.hash)} alt={alt} className="block w-full" loading="lazy" />
        {photo.dots.map((d, n) => (
          <span
            key={n}
            aria-hidden="true"
            className="figures absolute inline-flex size-7 -translate-1/2 items-center justify-center rounded-full border-2 border-paper bg-ink text-[0.875rem] font-bold text-paper"
            style={{ left: `${d.x}%`, top: `${d.y}%` }}
          >
            {n + 1}
          </span>
        ))}
      </div>
      <figcaption className="mt-0.5 text-tiny">
        <b>{title}</b> <span className="text-quiet">{[photo.about, timeOf(photo.at), photo.by].filter(Boolean).join(', ')}</span>
        {photo.dots.some((d) => d.says) && <span className="block">{photo.dots.map((d, n) => `${n + 1} ${d.says}`).join(' · ')}</span>}
      </figcaption>
    </figure>
  )
}

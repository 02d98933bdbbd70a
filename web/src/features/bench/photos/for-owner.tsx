import { useMay } from '@/api/session'
import { Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { addressOf } from '@/lib/pictures'

/** Which photos stand on the report: asked before the unit goes, one press each. */
export function PhotosForOwner() {
  const { job, send, isBusy } = useBench()
  const may = useMay('note') && job.stage === 'hand_back'
  const shown = job.photos.filter((p) => may || p.for_owner)
  if (shown.length === 0) return null
  const given = job.photos.filter((p) => p.for_owner).length
  return (
    <Panel title="Photos for the owner" aside={given === 0 ? 'none stands on the report' : `${given} on the report`}>
      <ul className="flex flex-wrap gap-3">
        {shown.map((p) => (
          <li key={p.line}>
            <button
              type="button"
              aria-pressed={p.for_owner}
              disabled={!may || isBusy}
              className={`w-40 overflow-hidden rounded-lg border-2 text-left ${p.for_owner ? 'border-verdigris' : 'border-ink/45'}`}
              onClick={() => send({ do: 'mark_photo', line: p.line, dots: p.dots, for_owner: !p.for_owner }, p.for_owner ? 'A photo off the report' : 'A photo for the owner')}
            >
              <img src={addressOf(p.hash)} alt={p.about || 'Photo'} className="h-24 w-full bg-mat object-cover" />
              <span className="block min-h-11 px-2 py-1 text-tiny">
                <b className={p.for_owner ? 'text-verdigris' : ''}>{p.for_owner ? '✓ on the report' : 'for the shop alone'}</b> {p.about}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Panel>
  )
}

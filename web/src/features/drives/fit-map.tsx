import type { Fit } from '@/api/types'
import { Asked } from '@/ui/asked'
import { useFitsAtLevel } from './drive-queries'
import { VerdictMark } from './verdict'

const LEGEND = [
  ['fits', 'fits'],
  ['transfers', 'fits with transfers'],
  ['part', 'fits in part'],
  ['claimed', 'unconfirmed claim'],
  ['no', 'does not fit'],
  ['unknown', 'nobody says'],
] as const

/** Compatibility as a picture: every drive against every part of one level. */
export function FitMap({ level, onPart }: { level: string; onPart: (code: string) => void }) {
  const asked = useFitsAtLevel(level)
  return (
    <Asked of={asked} what="what fits">
      {(found) => <Map fits={found.fits} onPart={onPart} />}
    </Asked>
  )
}

function Map({ fits, onPart }: { fits: Fit[]; onPart: (code: string) => void }) {
  const rows = [...new Set(fits.map((f) => f.variant))].map((variant) => ({ variant, fits: fits.filter((f) => f.variant === variant) }))
  const told = rows.filter((r) => r.fits.some((f) => f.verdict !== 'unknown'))
  const codes = [...new Set(told.flatMap((r) => r.fits.map((f) => f.code)))]
  if (told.length === 0) return <p className="text-quiet">No sheet names a part at this level.</p>
  return (
    <>
      <div className="relative overflow-x-auto">
        <table className="border-collapse">
          <thead>
            <tr>
              <th className="sr-only">Drive</th>
              {codes.map((c) => (
                <th key={c} className="px-1 pb-1 align-bottom font-normal">
                  <button type="button" className="figures min-h-11 min-w-11 rounded px-1.5 underline underline-offset-2 hover:bg-mat" onClick={() => onPart(c)}>
                    {c}
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {told.map((r) => (
              <tr key={r.variant} className="border-t border-line">
                <th scope="row" className="figures py-1 pr-3 text-left">
                  {r.variant}
                </th>
                {codes.map((c) => (
                  <MapCell key={c} fit={r.fits.find((f) => f.code === c)} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <ul className="mt-3 flex flex-wrap gap-x-4 gap-y-1 text-tiny" aria-label="What the marks mean">
        {LEGEND.map(([verdict, name]) => (
          <li key={verdict} className="flex items-center gap-1.5">
            <VerdictMark verdict={verdict} size={18} /> {name}
          </li>
        ))}
        <li className="flex items-center gap-1.5">
          <VerdictMark verdict="no" size={18} isQuiet /> cannot fit, by what both drives are
        </li>
      </ul>
    </>
  )
}

function MapCell({ fit }: { fit: Fit | undefined }) {
  return (
    <td className="px-1 py-1 text-center">
      <span className="inline-flex">
        {/* what follows from two drives' make is no news; what somebody found out is */}
        <VerdictMark verdict={fit?.verdict ?? 'unknown'} isQuiet={fit?.source === 'both sheets'} />
        <span className="sr-only">{fit?.verdict_name ?? 'nobody says'}</span>
      </span>
    </td>
  )
}

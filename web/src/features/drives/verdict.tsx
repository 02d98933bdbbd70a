import type { Verdict } from '@/api/types'

/** A verdict by shape and word: filled fits, ringed fits once something moves, half fits in part, dotted is a claim, barred does not fit. */
export function VerdictMark({ verdict, size = 22, isQuiet = false }: { verdict: Verdict; size?: number; isQuiet?: boolean }) {
  const tone = { fits: 'text-verdigris', transfers: 'text-verdigris', part: 'text-brass', claimed: 'text-brass', unknown: 'text-quiet', no: isQuiet ? 'text-line' : 'text-danger' }[verdict]
  return (
    <svg viewBox="0 0 22 22" width={size} height={size} aria-hidden="true" className={`shrink-0 ${tone}`} fill="none" stroke="currentColor" strokeWidth="2">
      {verdict === 'fits' && <rect x="3" y="3" width="16" height="16" rx="4" fill="currentColor" />}
      {verdict === 'transfers' && (
        <>
          <rect x="3" y="3" width="16" height="16" rx="4" />
          <rect x="7.5" y="7.5" width="7" height="7" rx="1.5" fill="currentColor" />
        </>
      )}
      {verdict === 'part' && (
        <>
          <rect x="3" y="3" width="16" height="16" rx="4" />
          <path d="M4 18L18 4V15a3 3 0 0 1-3 3z" fill="currentColor" stroke="none" />
        </>
      )}
      {verdict === 'claimed' && <rect x="3" y="3" width="16" height="16" rx="4" strokeDasharray="3 3" />}
      {verdict === 'unknown' && <path d="M7 11h8" />}
      {verdict === 'no' && (
        <>
          <rect x="3" y="3" width="16" height="16" rx="4" />
          <path d="M5 17L17 5" strokeWidth="2.6" />
        </>
      )}
    </svg>
  )
}

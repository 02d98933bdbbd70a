import type { ReactNode } from 'react'

/** A drawing with its one sentence for those who cannot see it. */
export function Drawing({ says, width, height, children }: { says: string; width: number; height: number; children: ReactNode }) {
  return (
    <svg role="img" aria-label={says} viewBox={`0 0 ${width} ${height}`} className="h-auto w-full max-w-[36rem] rounded-lg border border-line bg-paper" fontSize="15" fill="var(--ink)">
      {children}
    </svg>
  )
}

export const short = (x: number): string => String(Number(x.toPrecision(4)))

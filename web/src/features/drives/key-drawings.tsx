import type { ReactNode } from 'react'

const S = { fill: 'none', stroke: 'currentColor', strokeWidth: 2, strokeLinecap: 'round' as const, strokeLinejoin: 'round' as const }
const dots = (n: number, y: number, r: number, isFilled = false) => Array.from({ length: n }, (_, k) => <circle key={k} cx={28 + (k - (n - 1) / 2) * 16} cy={y} r={r} {...S} fill={isFilled ? 'currentColor' : 'none'} />)
const lines = (n: number) => Array.from({ length: n }, (_, k) => <path key={k} d={`M${28 + (k - (n - 1) / 2) * 14 - 4} 8v20h8V8z`} {...S} />)
const slit = <rect x="6" y="14" width="44" height="8" rx="4" {...S} />
const box = <rect x="6" y="6" width="44" height="24" rx="3" {...S} />
const front = (inside: ReactNode) => (
  <>
    <path d="M4 30h48M4 6h48" {...S} />
    {inside}
  </>
)

/** One small drawing for each value of each feature: what the eye should look for. Words stand beside it. */
const DRAWINGS: Record<string, Record<string, ReactNode>> = {
  loader: {
    tray: <path d="M8 6h40v10H8zM12 16v14h32V16" {...S} />,
    slot: (
      <>
        {box}
        <path d="M12 18h32" {...S} strokeWidth={4} />
      </>
    ),
    lid: <path d="M6 26h44v4H6zM8 26L44 6" {...S} />,
  },
  lip: {
    felt: (
      <>
        {slit}
        <path d="M8 26h40" {...S} strokeDasharray="1 4" strokeWidth={4} />
      </>
    ),
    brush: (
      <>
        {slit}
        <path d="M10 22v6M16 22v6M22 22v6M28 22v6M34 22v6M40 22v6M46 22v6" {...S} />
      </>
    ),
    rubber: (
      <>
        {slit}
        <path d="M8 26q10 6 20 0t20 0" {...S} />
      </>
    ),
    bare: slit,
  },
  eject: {
    round: front(<circle cx="28" cy="18" r="6" {...S} />),
    bar: front(<rect x="12" y="14" width="32" height="8" rx="2" {...S} />),
    touch: front(<path d="M28 11v14M21 18h14" {...S} strokeDasharray="2 4" />),
    none: <path d="M6 26h44v4H6zM8 26L44 6M40 14l4-8-9 1" {...S} />,
  },
  pinhole: {
    front: front(<circle cx="42" cy="18" r="2.6" fill="currentColor" />),
    under: (
      <>
        <path d="M6 10h44v10H6z" {...S} />
        <circle cx="28" cy="28" r="2.6" fill="currentColor" />
        <path d="M28 20v4" {...S} />
      </>
    ),
    none: front(null),
  },
  shield: {
    full: <rect x="6" y="6" width="44" height="24" rx="3" {...S} fill="currentColor" fillOpacity=".35" />,
    half: (
      <>
        {box}
        <rect x="6" y="6" width="22" height="24" rx="3" {...S} fill="currentColor" fillOpacity=".35" />
      </>
    ),
    none: box,
  },
  board_seen: {
    yes: (
      <>
        {box}
        <path d="M30 12h14v12H30zM33 12V9M37 12V9M41 12V9M33 24v3M37 24v3M41 24v3" {...S} />
      </>
    ),
    no: box,
  },
  flexes: { one: lines(1), two: lines(2), three: lines(3) },
  plug: {
    white: <path d="M16 8h24v14H16zM22 22v8M28 22v8M34 22v8" {...S} />,
    black: <path d="M16 8h24v14H16zM22 22v8M28 22v8M34 22v8" {...S} fill="currentColor" />,
    brown: <path d="M16 8h24v14H16zM22 22v8M28 22v8M34 22v8" {...S} fill="currentColor" fillOpacity=".4" />,
    none: <path d="M16 8h24v14H16z" {...S} strokeDasharray="3 4" />,
  },
  label: {
    square: <path d="M18 8h20v20H18zM22 12h4v4h-4zM30 12h4v4h-4zM22 20h4v4h-4zM31 20v5" {...S} />,
    bars: <path d="M14 8v20M18 8v20M24 8v20M27 8v20M33 8v20M38 8v20M42 8v20" {...S} />,
    words: <path d="M12 12h32M12 18h24M12 24h28" {...S} />,
    none: <path d="M12 8h32v20H12z" {...S} strokeDasharray="3 4" />,
  },
  lenses: { one: dots(1, 18, 8), two: dots(2, 18, 7) },
  trimmers: {
    none: <path d="M16 8h24v20H16z" {...S} strokeDasharray="3 4" />,
    one: (
      <>
        {dots(1, 18, 7)}
        <path d="M24 18h8" {...S} />
      </>
    ),
    two: (
      <>
        {dots(2, 18, 6)}
        <path d="M17 18h6M33 18h6" {...S} />
      </>
    ),
  },
  motor: {
    plug: <path d="M8 10h14v16H8zM34 10h14v16H34zM22 15h12M22 21h12" {...S} />,
    solder: (
      <>
        <path d="M8 10h14v16H8zM22 14h16M22 22h16" {...S} />
        <circle cx="41" cy="14" r="3.4" fill="currentColor" />
        <circle cx="41" cy="22" r="3.4" fill="currentColor" />
      </>
    ),
    flex: <path d="M8 10h14v16H8zM22 12h24v12H22zM26 12v12M30 12v12M34 12v12M38 12v12M42 12v12" {...S} />,
  },
  rails: {
    metal: <path d="M8 11h40M8 25h40" {...S} strokeWidth={3.4} />,
    plastic: <path d="M8 8h40v5H8zM8 23h40v5H8z" {...S} />,
    mixed: (
      <>
        <path d="M8 11h40" {...S} strokeWidth={3.4} />
        <path d="M8 23h40v5H8z" {...S} />
      </>
    ),
  },
}

export function Drawing({ feature, value }: { feature: string; value: string }) {
  const drawn = DRAWINGS[feature]?.[value]
  if (!drawn) return null
  return (
    <svg viewBox="0 0 56 36" className="h-9 w-14 shrink-0" aria-hidden="true">
      {drawn}
    </svg>
  )
}

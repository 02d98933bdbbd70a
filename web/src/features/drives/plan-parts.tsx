import type { ReactNode } from 'react'
import type { Drive } from '@/api/types'
import type { Shade } from './shade'

export interface PlanProps {
  drive: Drive
  shade: (part: string) => Shade | null
  title: string
}

export const LINE = { stroke: 'var(--ink)', strokeWidth: 1.4 } as const

export interface Box {
  shade: Shade | null
  x: number
  y: number
  w: number
  h: number
  name: string
  vertical?: boolean
  below?: boolean
  /** Name above, number below: for a part that is higher than it is wide. */
  stacked?: boolean
}

export function Part({ shade, x, y, w, h, name, vertical = false, below = false, stacked = false }: Box) {
  if (!shade) return null
  const cx = x + w / 2
  const cy = below ? y + h - 10 : y + h / 2 + 4.5
  return (
    <g>
      <rect x={x} y={y} width={w} height={h} rx="4.5" fill={shade.fill} {...LINE} />
      <g transform={vertical ? `rotate(-90 ${cx} ${y + h / 2})` : undefined}>
        {stacked ? (
          <>
            <Words x={cx} y={y + h / 2 - 3.5} text={name} number="" fill={shade.text} />
            <Words x={cx} y={y + h / 2 + 12.5} text="" number={shade.label} fill={shade.text} />
          </>
        ) : (
          <Words x={cx} y={vertical ? y + h / 2 + 4.5 : cy} text={name} number={shade.label} fill={shade.text} />
        )}
      </g>
    </g>
  )
}

export function Words({ x, y, text, number, fill }: { x: number; y: number; text: string; number: string; fill: string }) {
  return (
    <text x={x} y={y} textAnchor="middle" fontSize="12.5" fill={fill} >
      {text}
      {text && ' '}
      <tspan fontWeight="700" className="figures">{number}</tspan>
    </text>
  )
}

export function Round({ shade, cx, cy, r, name, labelX, labelY, inherit }: { shade: Shade | null; cx: number; cy: number; r: number; name: string; labelX: number; labelY: number; inherit?: Shade | null }) {
  if (!shade) return null
  return (
    <g>
      <circle cx={cx} cy={cy} r={r} fill={shade.fill} {...LINE} />
      {name && (
        <text x={labelX} y={labelY} fontSize="12.5" fill={inherit?.text ?? 'var(--ink)'}>
          {name} <tspan fontWeight="700" className="figures">{shade.label}</tspan>
        </text>
      )}
    </g>
  )
}

export function Caption({ x, y, anchor, shade, name }: { x: number; y: number; anchor: 'start' | 'middle'; shade: Shade | null; name: string }) {
  if (!shade) return null
  return (
    <text x={x} y={y} textAnchor={anchor} fontSize="12.5" fill={shade.isCleared ? 'var(--verdigris)' : 'var(--ink)'}>
      {name} <tspan fontWeight="700" className="figures">{shade.label}</tspan>
    </text>
  )
}

export function Flex({ shade, d, label }: { shade: Shade | null; d: string; label: { x: number; y: number; name: string } }) {
  if (!shade) return null
  return (
    <g>
      <path d={d} fill="none" stroke="var(--ink)" strokeWidth="13" />
      <path d={d} fill="none" stroke={shade.fill} strokeWidth="10.4" />
      {label.name && (
        <text x={label.x} y={label.y} fontSize="12.5" fill={shade.isCleared ? 'var(--verdigris)' : 'var(--ink)'}>
          {label.name} <tspan fontWeight="700" className="figures">{shade.label}</tspan>
        </text>
      )}
    </g>
  )
}

/** The drive board with its driver and fuse; hatched where it belongs to this console alone. */
export function Board({ shade, paired, hatch, x, y }: { shade: PlanProps['shade']; paired: boolean; hatch: string; x: number; y: number }) {
  const board = shade('board')
  return (
    <g>
      <rect x={x} y={y} width="104" height="128" rx="6" fill={board?.fill ?? 'var(--paper)'} {...LINE} />
      {paired && <rect x={x} y={y} width="104" height="128" rx="6" fill={`url(#${hatch})`} />}
      <Words x={x + 52} y={y + 17} text={paired ? 'paired board' : 'board'} number={board?.label ?? ''} fill={board?.text ?? 'var(--ink)'} />
      <Part shade={shade('driver')} x={x + 10} y={y + 26} w={84} h={38} name="driver" />
      <Part shade={shade('fuse')} x={x + 10} y={y + 70} w={84} h={23} name="fuse" />
      <Part shade={shade('flex_board')} x={x + 10} y={y + 99} w={84} h={23} name="board flex" />
    </g>
  )
}

/** The frame with its hatch pattern; everything of a plan lies in it. */
export function Frame({ hatch, title, children, note }: { hatch: string; title: string; children: ReactNode; note: string }) {
  return (
    <svg viewBox="0 0 400 288" role="img" aria-label={title} className="block w-full">
      <defs>
        <pattern id={hatch} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <rect width="2.4" height="7" fill="var(--ink)" opacity="0.16" />
        </pattern>
      </defs>
      <rect x="1" y="1" width="398" height="268" rx="13" fill="var(--tape)" {...LINE} strokeWidth={1.8} />
      {children}
      <text x="396" y="284" textAnchor="end" fontSize="12.5" fill="var(--quiet)">
        {note}
      </text>
    </svg>
  )
}

export const isPaired = (drive: Drive) => drive.pairing === 'board' || drive.pairing === 'chip'

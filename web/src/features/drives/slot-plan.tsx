import { useId } from 'react'
import type { Drive } from '@/api/types'
import type { Shade } from './shade'

interface Props {
  drive: Drive
  shade: (part: string) => Shade | null
  title: string
}

const LINE = { stroke: 'var(--ink)', strokeWidth: 1.4 } as const

/** A slot drive from above, front of the console at the bottom: where a part sits is where a hand finds it. */
export function SlotPlan({ drive, shade, title }: Props) {
  const hatch = useId()
  const paired = drive.pairing === 'board' || drive.pairing === 'chip'
  const board = shade('board')
  return (
    <svg viewBox="0 0 400 288" role="img" aria-label={title} className="block w-full">
      <defs>
        <pattern id={hatch} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <rect width="2.4" height="7" fill="var(--ink)" opacity="0.16" />
        </pattern>
      </defs>
      <rect x="1" y="1" width="398" height="268" rx="13" fill="var(--tape)" {...LINE} strokeWidth={1.8} />
      <circle cx="156" cy="122" r="108" fill="none" stroke="var(--quiet)" strokeDasharray="2 6" />

      {/* the slider along the left edge sets the mechanism's position */}
      <Part shade={shade('mechanism')} x={10} y={56} w={21} h={140} name="slider" vertical />
      <Part shade={shade('switch_home')} x={42} y={16} w={96} h={24} name="home switch" />
      <Part shade={shade('load')} x={42} y={166} w={54} h={34} name="load" />

      {/* rails with the pickup; the flex runs from it to the board */}
      <path d="M120 130V226M188 130V226" {...LINE} strokeWidth={3} />
      <Flex shade={shade('flex_pickup')} d="M200 180C246 180 238 108 292 104" label={{ x: 246, y: 176, name: 'flex' }} />
      <Part shade={shade('sled')} x={216} y={194} w={62} h={24} name="sled" />
      <Part shade={shade('pickup')} x={104} y={148} w={102} h={60} name="pickup" below />
      <Round shade={shade('lens')} cx={124} cy={168} r={12} name="lens" labelX={142} labelY={172.5} inherit={shade('pickup')} />
      <Part shade={shade('trimmer')} x={42} y={138} w={58} h={22} name="trim" />

      {/* spindle under the clamp */}
      <Round shade={shade('clamp')} cx={154} cy={98} r={33} name="" labelX={0} labelY={0} />
      <Round shade={shade('spindle')} cx={154} cy={98} r={21} name="" labelX={0} labelY={0} />
      <circle cx="154" cy="98" r="5" fill="var(--ink)" />
      <Caption x={154} y={59} anchor="middle" shade={shade('clamp')} name="clamp" />
      <Caption x={192} y={86} anchor="start" shade={shade('spindle')} name="spindle" />

      {/* the drive board with its driver, fuse and the flex to the console */}
      <Flex shade={shade('flex_board')} d="M374 16V2" label={{ x: 0, y: 0, name: '' }} />
      <rect x="286" y="14" width="104" height="128" rx="6" fill={board?.fill ?? 'var(--paper)'} {...LINE} />
      {paired && <rect x="286" y="14" width="104" height="128" rx="6" fill={`url(#${hatch})`} />}
      <Words x={338} y={31} text={paired ? 'paired board' : 'board'} number={board?.label ?? ''} fill={board?.text ?? 'var(--ink)'} />
      <Part shade={shade('driver')} x={296} y={40} w={84} h={38} name="driver" />
      <Part shade={shade('fuse')} x={296} y={84} w={84} h={23} name="fuse" />
      <Part shade={shade('flex_board')} x={296} y={113} w={84} h={23} name="board flex" />

      <Part shade={shade('supply')} x={312} y={230} w={78} h={25} name="supply" />
      <Part shade={shade('object')} x={216} y={230} w={86} h={25} name="object" />
      <Part shade={shade('switch_insert')} x={42} y={206} w={58} h={22} name="insert" />
      <Part shade={shade('rollers')} x={42} y={234} w={164} h={21} name="rollers" />
      <path d="M36 263H212" {...LINE} strokeWidth={3.4} strokeLinecap="round" />
      <text x="396" y="284" textAnchor="end" fontSize="12.5" fill="var(--quiet)">
        front of the console ↓
      </text>
    </svg>
  )
}

interface Box {
  shade: Shade | null
  x: number
  y: number
  w: number
  h: number
  name: string
  vertical?: boolean
  below?: boolean
}

function Part({ shade, x, y, w, h, name, vertical = false, below = false }: Box) {
  if (!shade) return null
  const cx = x + w / 2
  const cy = below ? y + h - 10 : y + h / 2 + 4.5
  return (
    <g>
      <rect x={x} y={y} width={w} height={h} rx="4.5" fill={shade.fill} {...LINE} />
      <g transform={vertical ? `rotate(-90 ${cx} ${y + h / 2})` : undefined}>
        <Words x={cx} y={vertical ? y + h / 2 + 4.5 : cy} text={name} number={shade.label} fill={shade.text} />
      </g>
    </g>
  )
}

function Words({ x, y, text, number, fill }: { x: number; y: number; text: string; number: string; fill: string }) {
  return (
    <text x={x} y={y} textAnchor="middle" fontSize="12.5" fill={fill} >
      {text}
      {text && ' '}
      <tspan fontWeight="700" className="figures">{number}</tspan>
    </text>
  )
}

function Round({ shade, cx, cy, r, name, labelX, labelY, inherit }: { shade: Shade | null; cx: number; cy: number; r: number; name: string; labelX: number; labelY: number; inherit?: Shade | null }) {
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

function Caption({ x, y, anchor, shade, name }: { x: number; y: number; anchor: 'start' | 'middle'; shade: Shade | null; name: string }) {
  if (!shade) return null
  return (
    <text x={x} y={y} textAnchor={anchor} fontSize="12.5" fill={shade.isCleared ? 'var(--verdigris)' : 'var(--ink)'}>
      {name} <tspan fontWeight="700" className="figures">{shade.label}</tspan>
    </text>
  )
}

function Flex({ shade, d, label }: { shade: Shade | null; d: string; label: { x: number; y: number; name: string } }) {
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

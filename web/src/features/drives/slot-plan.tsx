import { useId } from 'react'
import { Board, Caption, Flex, Frame, isPaired, LINE, Part, Round, type PlanProps } from './plan-parts'

/** A slot drive from above, front of the console at the bottom: where a part sits is where a hand finds it. */
export function SlotPlan({ drive, shade, title }: PlanProps) {
  const hatch = useId()
  return (
    <Frame hatch={hatch} title={title} note="front of the console ↓">
      <circle cx="156" cy="122" r="108" fill="none" stroke="var(--quiet)" strokeDasharray="2 6" />

      {/* the slider along the left edge sets the mechanism's position */}
      <Part shade={shade('mechanism')} x={10} y={56} w={21} h={140} name="slider" vertical />
      <Part shade={shade('switch_home')} x={42} y={16} w={96} h={24} name="home switch" />
      <Part shade={shade('load')} x={42} y={166} w={54} h={34} name="load" />

      {/* rails with the pickup; the flex runs from it to the board */}
      <path d="M120 130V226M188 130V226" {...LINE} strokeWidth={3} />
      <Flex shade={shade('flex_pickup')} d="M200 180C246 180 238 108 292 104" label={{ x: 222, y: 116, name: 'flex' }} />
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

      <Flex shade={shade('flex_board')} d="M374 16V2" label={{ x: 0, y: 0, name: '' }} />
      <Board shade={shade} paired={isPaired(drive)} hatch={hatch} x={286} y={14} />
      <Part shade={shade('switch_sled')} x={216} y={160} w={174} h={24} name="sled home switch" />

      <Part shade={shade('supply')} x={312} y={230} w={78} h={25} name="supply" />
      <Part shade={shade('object')} x={216} y={230} w={86} h={25} name="object" />
      <Part shade={shade('switch_insert')} x={42} y={206} w={58} h={22} name="insert" />
      <Part shade={shade('rollers')} x={42} y={234} w={164} h={21} name="rollers" />
      <path d="M36 263H212" {...LINE} strokeWidth={3.4} strokeLinecap="round" />
    </Frame>
  )
}

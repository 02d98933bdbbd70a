import { useId } from 'react'
import { Board, Caption, Flex, Frame, isPaired, LINE, Part, Round, type PlanProps } from './plan-parts'

/** A tray drive from above, front of the console at the bottom. A belt drive shows its belt; one with gears alone does not. */
export function TrayPlan({ drive, shade, title }: PlanProps) {
  const hatch = useId()
  const belt = shade('belt')
  return (
    <Frame hatch={hatch} title={title} note="the tray comes out below ↓">
      {/* the tray with its well, drawn over its rails */}
      <path d="M38 12V262M250 12V262" {...LINE} strokeWidth={2} strokeDasharray="7 4" />
      <rect x="44" y="12" width="200" height="212" rx="10" fill={shade('tray')?.fill ?? 'none'} {...LINE} />
      <circle cx="144" cy="104" r="84" fill="none" stroke="var(--quiet)" strokeDasharray="2 6" />
      <Caption x={144} y={217} anchor="middle" shade={shade('tray')} name="tray" />

      <path d="M112 116V190M176 116V190" {...LINE} strokeWidth={3} />
      <Flex shade={shade('flex_pickup')} d="M186 164C236 164 236 96 292 96" label={{ x: 182, y: 128, name: 'flex' }} />
      <Part shade={shade('pickup')} x={96} y={132} w={96} h={58} name="pickup" below />
      <Round shade={shade('lens')} cx={114} cy={150} r={11} name="lens" labelX={131} labelY={154.5} inherit={shade('pickup')} />
      <Part shade={shade('trimmer')} x={50} y={134} w={42} h={34} name="trim" stacked />
      <Part shade={shade('sled')} x={196} y={176} w={44} h={34} name="sled" stacked />
      <Round shade={shade('clamp')} cx={144} cy={84} r={31} name="" labelX={0} labelY={0} />
      <Round shade={shade('spindle')} cx={144} cy={84} r={19} name="" labelX={0} labelY={0} />
      <circle cx="144" cy="84" r="5" fill="var(--ink)" />
      <Caption x={144} y={50.5} anchor="middle" shade={shade('clamp')} name="clamp" />
      <Caption x={180} y={78} anchor="start" shade={shade('spindle')} name="spindle" />
      <Part shade={shade('lift')} x={52} y={15} w={76} h={21} name="lift" />
      <Part shade={shade('switch_sled')} x={160} y={15} w={78} h={21} name="sled sw" />

      {/* load motor, its belt to the gear, at the front */}
      <Part shade={shade('load')} x={52} y={232} w={64} h={28} name="load" />
      {belt && (
        <g>
          <path d="M120 236H200M120 256H200" fill="none" stroke="var(--ink)" strokeWidth="7" strokeLinecap="round" />
          <path d="M120 236H200M120 256H200" fill="none" stroke={belt.fill} strokeWidth="4.4" strokeLinecap="round" />
          <circle cx="206" cy="246" r="12" fill="var(--paper)" {...LINE} />
          <Caption x={158} y={250.5} anchor="middle" shade={belt} name="belt" />
        </g>
      )}

      <Flex shade={shade('flex_board')} d="M374 16V2" label={{ x: 0, y: 0, name: '' }} />
      <Board shade={shade} paired={isPaired(drive)} hatch={hatch} x={286} y={14} />
      <Part shade={shade('switch_open')} x={262} y={152} w={128} h={22} name="open switch" />
      <Part shade={shade('switch_shut')} x={262} y={178} w={128} h={22} name="shut switch" />
      <Part shade={shade('button')} x={262} y={212} w={128} h={22} name="eject button" />
      <Part shade={shade('supply')} x={328} y={240} w={62} h={22} name="supply" />
      <Part shade={shade('object')} x={262} y={240} w={62} h={22} name="object" />
    </Frame>
  )
}

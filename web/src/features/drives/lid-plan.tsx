import { useId } from 'react'
import { Board, Caption, Flex, Frame, isPaired, LINE, Part, Round, type PlanProps } from './plan-parts'

/** A lid drive from above with its lid up: the well, the hub, and the switches that the lid presses. */
export function LidPlan({ drive, shade, title }: PlanProps) {
  const hatch = useId()
  const lid = shade('lid')
  return (
    <Frame hatch={hatch} title={title} note="hinge above, front below ↓">
      <path d="M28 10H258" {...LINE} strokeWidth={5} strokeLinecap="round" />
      <circle cx="142" cy="136" r="112" fill={lid?.fill ?? 'none'} fillOpacity={0.55} {...LINE} />
      <circle cx="142" cy="136" r="96" fill="var(--tape)" stroke="var(--quiet)" strokeDasharray="2 6" />
      <Caption x={142} y={38} anchor="middle" shade={lid} name="lid" />

      <path d="M112 146V216M176 146V216" {...LINE} strokeWidth={3} />
      <Flex shade={shade('flex_pickup')} d="M188 190C240 190 240 96 292 96" label={{ x: 204, y: 124, name: 'flex' }} />
      <Part shade={shade('pickup')} x={94} y={160} w={100} h={58} name="pickup" below />
      <Round shade={shade('lens')} cx={112} cy={178} r={11} name="lens" labelX={129} labelY={182.5} inherit={shade('pickup')} />
      <Part shade={shade('trimmer')} x={54} y={134} w={62} h={22} name="trim" />
      <Part shade={shade('sled')} x={170} y={134} w={56} h={22} name="sled" />
      <Round shade={shade('hub')} cx={142} cy={96} r={31} name="" labelX={0} labelY={0} />
      <Round shade={shade('spindle')} cx={142} cy={96} r={19} name="" labelX={0} labelY={0} />
      <circle cx="142" cy="96" r="5" fill="var(--ink)" />
      <Caption x={142} y={60} anchor="middle" shade={shade('hub')} name="hub" />
      <Caption x={178} y={100} anchor="start" shade={shade('spindle')} name="spindle" />

      <Part shade={shade('switch_lid')} x={270} y={158} w={120} h={24} name={drive.lid_switches === 2 ? 'lid switches' : 'lid switch'} />
      <Part shade={shade('switch_sled')} x={270} y={188} w={120} h={22} name="sled switch" />

      <Flex shade={shade('flex_board')} d="M374 16V2" label={{ x: 0, y: 0, name: '' }} />
      <Board shade={shade} paired={isPaired(drive)} hatch={hatch} x={286} y={14} />
      <Part shade={shade('object')} x={270} y={244} w={120} h={20} name="object" />
      <Part shade={shade('supply')} x={270} y={216} w={120} h={22} name="supply" />
    </Frame>
  )
}

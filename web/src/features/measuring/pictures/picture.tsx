import type { Told } from '@/api/types'
import { Band, Ohms, type BandPicture, type OhmsPicture } from './scales'
import { Belt, Dial, type BeltPicture, type DialPicture } from './turning'
import { Flex, Switch, type FlexPicture, type SwitchPicture } from './contacts'
import { Train, type TrainPicture } from './train'
import { Spots, type SpotsPicture } from './spots'
import { Screws, type ScrewsPicture } from './screws'
import { Capacitors, Pads, Tilt, Trims, type CapacitorsPicture, type PadsPicture, type TiltPicture, type TrimsPicture } from './parts'

/** What a calculator's answer looks like, to scale. Its facts stand beside it in words as well. */
export function Picture({ picture }: { picture: Told['picture'] }) {
  switch (picture.kind) {
    case 'band':
      return <Band of={picture as unknown as BandPicture} />
    case 'ohms':
      return <Ohms of={picture as unknown as OhmsPicture} />
    case 'dial':
      return <Dial of={picture as unknown as DialPicture} />
    case 'belt':
      return <Belt of={picture as unknown as BeltPicture} />
    case 'switch':
      return <Switch of={picture as unknown as SwitchPicture} />
    case 'flex':
      return <Flex of={picture as unknown as FlexPicture} />
    case 'pads':
      return <Pads of={picture as unknown as PadsPicture} />
    case 'tilt':
      return <Tilt of={picture as unknown as TiltPicture} />
    case 'capacitors':
      return <Capacitors of={picture as unknown as CapacitorsPicture} />
    case 'trims':
      return <Trims of={picture as unknown as TrimsPicture} />
    case 'train':
      return <Train of={picture as unknown as TrainPicture} />
    case 'spots':
      return <Spots of={picture as unknown as SpotsPicture} />
    case 'screws':
      return <Screws of={picture as unknown as ScrewsPicture} />
    default:
      return null
  }
}

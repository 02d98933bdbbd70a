import { useMay } from '@/api/session'
import type { Instrument } from '@/api/types'
import { Asked } from '@/ui/asked'
import { Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { useInstruments, useSayInstrument } from './shop-queries'
import { Meters } from './meters'
import { ShopNav } from './shop-nav'

/** What the shop has, of what not every shop has. */
export function Instruments() {
  const found = useInstruments()
  const may = useMay('shop')
  const say = useSayInstrument()
  return (
    <Page title="What this shop has" lead={`What is not here is never proposed. ${may ? 'A change counts for every bench at once.' : 'A manager can change it.'}`}>
      <ShopNav />
      {say.isError && (
        <Notice tone="danger" title="Not changed" role="alert">
          {say.error.message}
        </Notice>
      )}
      <Asked of={found} what="the instruments">
        {({ instruments }) => (
          <Panel title="Instruments and skills" className="max-w-2xl">
            <ul className="divide-y divide-line">
              {instruments.map((i) => (
                <InstrumentRow key={i.id} one={i} isOff={!may || say.isPending} onSay={(is_there) => say.mutate({ instrument: i.id, is_there })} />
              ))}
            </ul>
          </Panel>
        )}
      </Asked>
      <Meters may={may} />
    </Page>
  )
}

function InstrumentRow({ one, isOff, onSay }: { one: Instrument; isOff: boolean; onSay: (isThere: boolean) => void }) {
  return (
    <li>
      <label className="flex min-h-12 items-center gap-3 py-1">
        <input type="checkbox" className="size-6 accent-ink" checked={one.is_there} disabled={isOff} onChange={(e) => onSay(e.target.checked)} />
        <span className="font-semibold">{one.name}</span>
        <span className="ml-auto text-quiet">{one.is_there ? 'here' : 'not here'}</span>
      </label>
    </li>
  )
}

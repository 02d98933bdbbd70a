import { useQuery } from '@tanstack/react-query'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import { useMay } from '@/api/session'
import type { Meter } from '@/api/types'
import { Button } from '@/ui/button'
import { SerialLine, serialPorts } from './serial-line'
import { useLive, type Held, type Source } from './use-live'

type Quantity = 'voltage' | 'resistance' | 'current'
const QUANTITIES: readonly string[] = ['voltage', 'resistance', 'current']

const useMeters = () => useQuery({ queryKey: ['meters'], queryFn: () => dataOf(client.GET('/api/meters')), staleTime: 60_000 })

const overTheShopsLine = (meter: Meter, quantity: Quantity): Source => ({
  name: meter.name,
  take: (before) => dataOf(client.POST('/api/meters/{meter_id}/read', { params: { path: { meter_id: meter.id } }, body: { quantity, before } })),
})

const onThisComputer = async (ports: NonNullable<ReturnType<typeof serialPorts>>, quantity: Quantity): Promise<Source> => {
  const line = await SerialLine.open(ports)
  return {
    name: 'this computer’s meter',
    take: async (before) => dataOf(client.POST('/api/meters/line', { body: { quantity, before, text: await line.ask(quantity) } })),
    close: () => line.close(),
  }
}

/** One key for each meter that reads this: it shows what it reads, and fills the boxes when it holds. What it does not do is said, and the field stays for typing. */
export function MeterRead({ quantity, onHeld }: { quantity: string; onHeld: (held: Held) => void }) {
  const meters = useMeters()
  const may = useMay('bench')
  const { live, problem, start, stop } = useLive(onHeld)
  const ports = serialPorts()
  const fitting = (meters.data ?? []).filter((m) => m.is_here && quantity in m.functions)
  if (!may || !QUANTITIES.includes(quantity) || (fitting.length === 0 && !ports)) return null
  const of = quantity as Quantity
  return (
    <div className="mt-1.5">
      {live ? (
        <div className="flex flex-wrap items-center gap-3">
          <span aria-live="polite" className="figures text-[1.35rem] font-bold">
            {live.shown || '…'}
          </span>
          <span className="text-quiet">{live.from}: hold the tips still</span>
          <Button onClick={stop}>Stop</Button>
        </div>
      ) : (
        <div className="flex flex-wrap gap-1.5">
          {fitting.map((meter) => (
            <Button key={meter.id} onClick={() => void start(() => Promise.resolve(overTheShopsLine(meter, of)))}>
              Read {meter.name}
            </Button>
          ))}
          {ports && <Button onClick={() => void start(() => onThisComputer(ports, of))}>Read a meter on this computer</Button>}
        </div>
      )}
      {problem && (
        <p role="alert" className="mt-1 text-danger">
          {problem}
        </p>
      )}
    </div>
  )
}

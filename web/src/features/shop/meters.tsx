import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client } from '@/api/client'
import { useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import type { components } from '@/api/schema'
import type { Meter } from '@/api/types'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { FormDialog } from '@/ui/form-dialog'
import { Chip, Panel } from '@/ui/panel'
import { Box, Reads } from './meter-reads'
import { isNumber, isWhole, numberOf, readsOf, typedReads, type TypedReads } from './meter-typed'

type Said = components['schemas']['MeterIn']
type Quantity = 'voltage' | 'resistance' | 'current'
const READS: { id: Quantity; label: string; unit: string }[] = [
  { id: 'voltage', label: 'Volts', unit: 'V' },
  { id: 'resistance', label: 'Ohms', unit: 'Ω' },
  { id: 'current', label: 'Amps', unit: 'A' },
]

/** The meters that are read over a line: where they are, what they read, and how sure they are. */
export function Meters({ may }: { may: boolean }) {
  const meters = useQuery({ queryKey: ['meters'], queryFn: () => dataOf(client.GET('/api/meters')) })
  const [edited, setEdited] = useState<Meter | 'new' | null>(null)
  return (
    <Panel title="Meters that are read over a line" className="max-w-2xl" aside={may && <Button onClick={() => setEdited('new')}>Set one up</Button>}>
      <Asked of={meters} what="the meters">
        {(found) =>
          found.length === 0 ? (
            <p className="text-quiet">None. Readings are typed.</p>
          ) : (
            <ul className="divide-y divide-line">
              {found.map((m) => (
                <li key={m.id} className="flex min-h-14 flex-wrap items-center gap-x-3 py-1.5">
                  <b>{m.name}</b>
                  <span className="figures text-quiet">{m.address}</span>
                  {!m.is_here && <Chip tone="brass">not here</Chip>}
                  <span className="text-quiet">
                    {READS.filter((r) => m.functions[r.id]).map((r) => `${r.label.toLowerCase()} to ${m.functions[r.id]!.pct} % and ${m.functions[r.id]!.digits} digits`).join(', ')}
                  </span>
                  {may && (
                    <span className="ml-auto">
                      <Button onClick={() => setEdited(m)}>Put it right</Button>
                    </span>
                  )}
                </li>
              ))}
            </ul>
          )
        }
      </Asked>
      {edited && <MeterForm meter={edited === 'new' ? null : edited} onClose={() => setEdited(null)} />}
    </Panel>
  )
}

const useSayMeter = () => useOnce((body: Said) => dataOf(client.POST('/api/meters', { body })), ['meters'])
const useTryMeter = () => useMutation({ mutationFn: (address: string) => dataOf(client.POST('/api/meters/try', { body: { address } })) })
const NEW = { name: '', address: '', functions: { voltage: {}, resistance: {} }, leads_ohm: null, is_here: true }

/** What is typed of a meter, its numbers as text. */
const typedOf = (meter: Pick<Meter, 'name' | 'address' | 'leads_ohm' | 'is_here'> & { functions: Record<string, object> }) => ({
  ...meter,
  leads: meter.leads_ohm === null ? '' : String(meter.leads_ohm),
  functions: Object.fromEntries(Object.entries(meter.functions).map(([q, f]) => [q, typedReads(f)])) as Partial<Record<Quantity, TypedReads>>,
})

function MeterForm({ meter, onClose }: { meter: Meter | null; onClose: () => void }) {
  const say = useSayMeter()
  const [said, setSaid] = useState(() => typedOf(meter ?? NEW))
  const put = (part: Partial<typeof said>) => setSaid({ ...said, ...part })
  const functions = Object.entries(said.functions) as [Quantity, TypedReads][]
  const isReady = [said.name.trim(), said.address.trim()].every(Boolean) && functions.length > 0 && isNumber(said.leads) && functions.every(([, f]) => isWhole(f))
  const send = () => {
    const told = Object.fromEntries(functions.map(([q, f]) => [q, readsOf(f)]))
    const body = { id: meter?.id ?? null, name: said.name, address: said.address, functions: told, leads_ohm: said.leads === '' ? null : numberOf(said.leads), is_here: said.is_here }
    say.mutate(body, { onSuccess: onClose })
  }
  return (
    <FormDialog title={meter ? meter.name : 'Set a meter up'} act="Save" isReady={isReady} isBusy={say.isPending} error={say.error} onSend={send} onClose={onClose}>
      <TextField label="Name" hint="What stands on it: benches ask for it by this." value={said.name} maxLength={60} onChange={(e) => put({ name: e.target.value })} />
      <Where address={said.address} onChange={(address) => put({ address })} />
      {READS.map((r) => (
        <Reads key={r.id} of={r} typed={said.functions[r.id]} onChange={(typed) => put({ functions: { ...said.functions, [r.id]: typed } })} onDrop={() => put({ functions: Object.fromEntries(functions.filter(([q]) => q !== r.id)) })} />
      ))}
      <TextField label="Tips touched together read, in Ω" hint="Left out: 0.35 Ω is taken off, less surely." inputMode="decimal" value={said.leads} onChange={(e) => put({ leads: e.target.value })} />
      <Box label="It is here" isOn={said.is_here} onFlip={() => put({ is_here: !said.is_here })} />
    </FormDialog>
  )
}

/** Its address, and who answers there. */
function Where({ address, onChange }: { address: string; onChange: (address: string) => void }) {
  const asked = useTryMeter()
  return (
    <div>
      <TextField label="Address" hint="On the network: TCPIP0::192.168.0.9::5025::SOCKET. On a serial line: ASRL/dev/ttyUSB0::INSTR. On USB: USB0::0x1234::0x5678::SERIAL::INSTR." value={address} maxLength={120} onChange={(e) => onChange(e.target.value)} />
      <div className="mt-1.5 flex flex-wrap items-center gap-3">
        <Button disabled={address.trim() === '' || asked.isPending} onClick={() => asked.mutate(address)}>
          {asked.isPending ? 'Asking…' : 'Who answers there?'}
        </Button>
        <span role="status" className={asked.isError ? 'text-danger' : ''}>
          {asked.isError ? asked.error.message : asked.data?.says}
        </span>
      </div>
    </div>
  )
}

import { useState } from 'react'
import { useMay } from '@/api/session'
import { dayOf } from '@/lib/dates'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { FileLink } from '@/ui/file-link'
import { Notice, Panel } from '@/ui/panel'
import { useCalendars, useEndCalendar, useMakeCalendar, type CalendarAddress } from './day-queries'

/** The days for a calendar program: as a file for anybody, as addresses for who runs the shop. */
export function Calendars() {
  const isManager = useMay('shop')
  return (
    <Panel title="As a calendar" aside="promises, deliveries and ends of guarantees; tags and models, no names of owners">
      <FileLink href="/api/week/calendar.ics">Fetch it as a file</FileLink>
      {isManager && <Addresses />}
    </Panel>
  )
}

function Addresses() {
  const made = useCalendars(true)
  return (
    <div className="mt-4 space-y-3 border-t border-line pt-3">
      <p className="text-quiet">An address keeps a calendar program up to date. Whoever has it sees these days without signing in, until it is taken back.</p>
      <Asked of={made} what="the addresses">
        {(found) => (
          <ul className="divide-y divide-line">
            {found.map((a) => (
              <Address key={a.id} address={a} />
            ))}
          </ul>
        )}
      </Asked>
      <NewAddress />
    </div>
  )
}

function Address({ address }: { address: CalendarAddress }) {
  const end = useEndCalendar()
  const [isSure, setSure] = useState(false)
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-1.5">
      <span className="w-40 font-semibold">
        {address.name} <span className="block text-tiny font-normal text-quiet">since {dayOf(address.at)}</span>
      </span>
      <input readOnly aria-label={`Address for ${address.name}`} value={`${window.location.origin}${address.path}`} onFocus={(e) => e.target.select()} className="min-h-11 min-w-0 flex-1 basis-72 rounded-lg border border-line bg-mat px-2.5" />
      {isSure ? (
        <>
          <Button kind="act" disabled={end.isPending} onClick={() => end.mutate({ id: address.id })}>
            Take it back for good
          </Button>
          <Button onClick={() => setSure(false)}>Keep it</Button>
        </>
      ) : (
        <Button onClick={() => setSure(true)}>Take back</Button>
      )}
      {end.error && <Notice tone="danger" title={end.error.message} role="alert" />}
    </li>
  )
}

function NewAddress() {
  const make = useMakeCalendar()
  const [name, setName] = useState('')
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault()
        if (name.trim()) make.mutate({ name: name.trim() }, { onSuccess: () => setName('') })
      }}
    >
      <div className="w-72">
        <TextField label="A new address, for" placeholder="counter tablet, Ida’s phone" value={name} maxLength={60} onChange={(e) => setName(e.target.value)} autoComplete="off" />
      </div>
      <Button type="submit" disabled={!name.trim() || make.isPending}>
        Make it
      </Button>
      {make.error && <Notice tone="danger" title={make.error.message} role="alert" />}
    </form>
  )
}

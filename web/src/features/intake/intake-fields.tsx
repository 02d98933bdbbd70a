import type { MouseEvent, ReactNode } from 'react'
import type { Prompt } from '@/api/types'
import { daysUntil } from '@/lib/dates'
import { centsOf, moneySign } from '@/lib/money'
import { Button } from '@/ui/button'
import { Choice, TextArea, TextField } from '@/ui/field'
import { Panel } from '@/ui/panel'
import { PromiseField } from './promise-field'

/** What the counter types, as it is typed: checked and turned into numbers when it is sent. */
export interface Notes {
  owner_name: string
  owner_contact: string
  complaint: string
  supply: string
  limit: string
  promised_on: string
  /** A day that has passed is promised all the same. */
  isPastMeant: boolean
  condition: Record<string, string>
}

export const emptyNotes: Notes = { owner_name: '', owner_contact: '', complaint: '', supply: '', limit: '', promised_on: '', isPastMeant: false, condition: {} }

export const limitError = (typed: string): string | undefined =>
  typed.trim() === '' || centsOf(typed) !== null ? undefined : 'Write an amount, as 45 or 45.50.'

export const promiseError = ({ promised_on, isPastMeant }: Notes, now = new Date()): string | undefined =>
  promised_on !== '' && daysUntil(promised_on, now) < 0 && !isPastMeant ? 'The promised day has passed.' : undefined

interface Props {
  notes: Notes
  onChange: (notes: Notes) => void
  prompts: readonly Prompt[]
  /** The drive of a unit that comes in now. */
  sheetId?: number | undefined
  /** What else belongs to the owner. */
  children?: ReactNode
}

export function IntakeFields({ notes, onChange, prompts, sheetId, children }: Props) {
  const set = (part: Partial<Notes>) => onChange({ ...notes, ...part })
  const seen = prompts.filter((p) => !p.may_stay_open)
  const left = seen.filter((p) => !notes.condition[p.id]).length
  const usual = (event: MouseEvent<HTMLButtonElement>) => {
    set({ condition: { ...Object.fromEntries(seen.map((p) => [p.id, p.choices[0]?.id ?? ''])), ...notes.condition } })
    // the button goes, and with it the focus; nothing is left to be filled in, so a hand on the keyboard (no click) goes on to the end
    event.currentTarget.form?.querySelector<HTMLElement>('[type=submit]')?.focus({ preventScroll: event.detail > 0 })
  }
  return (
    <>
      <Panel title="The owner">
        <div className="grid gap-4 md:grid-cols-2">
          <TextField label="Name" name="owner_name" value={notes.owner_name} maxLength={120} onChange={(e) => set({ owner_name: e.target.value })} autoComplete="off" />
          <TextField label="How to reach them" value={notes.owner_contact} maxLength={120} onChange={(e) => set({ owner_contact: e.target.value })} autoComplete="off" />
          {children && <div className="empty:hidden md:col-span-2">{children}</div>}
          <div className="md:col-span-2">
            <TextArea label="Complaint, in the owner's words" hint="Not what you think it is: the bench sees that for itself." value={notes.complaint} maxLength={2000} onChange={(e) => set({ complaint: e.target.value })} />
          </div>
          <TextField label="May be spent without asking" hint={`In ${moneySign()}. Nothing beyond it is spent before the owner agrees.`} inputMode="decimal" placeholder="0.00" value={notes.limit} error={limitError(notes.limit)} onChange={(e) => set({ limit: e.target.value })} />
          <PromiseField sheetId={sheetId} value={notes.promised_on} isMeant={notes.isPastMeant} onChange={(promised_on) => set({ promised_on, isPastMeant: false })} onMeant={(isPastMeant) => set({ isPastMeant })} />
          <div className="md:col-span-2">
            <TextField label="Power supply the owner uses" hint="The one inside, the one it came with, or another: a wrong supply blows fuses." value={notes.supply} maxLength={120} onChange={(e) => set({ supply: e.target.value })} />
          </div>
        </div>
      </Panel>
      <Panel title="Condition, before it is opened" aside={left === 0 ? 'all noted' : `${left} of ${seen.length} still open`}>
        {left > 0 && (
          <p className="mb-1 flex flex-wrap items-center gap-x-3">
            <Button onClick={usual}>{left === seen.length ? 'All as usual' : 'The rest as usual'}</Button>
            <span className="text-quiet">The first answer of each: change what is otherwise.</span>
          </p>
        )}
        <Prompts of={seen} notes={notes} onChange={onChange} />
      </Panel>
      <Panel title="The complaint, point by point" aside="may stay open">
        <p className="mb-1 text-quiet">What the owner can say. It weighs as a story does: less than what the bench sees.</p>
        <Prompts of={prompts.filter((p) => p.may_stay_open)} notes={notes} onChange={onChange} />
      </Panel>
    </>
  )
}

function Prompts({ of, notes, onChange }: { of: readonly Prompt[]; notes: Notes; onChange: (notes: Notes) => void }) {
  return (
    <div className="divide-y divide-line">
      {of.map((p) => (
        <div key={p.id} className="py-2">
          <Choice inline label={p.ask} choices={p.choices} value={notes.condition[p.id] ?? ''} onChange={(id) => onChange({ ...notes, condition: { ...notes.condition, [p.id]: id } })} />
        </div>
      ))}
    </div>
  )
}

import type { Prompt } from '@/api/types'
import { centsOf } from '@/lib/money'
import { Choice, TextArea, TextField } from '@/ui/field'
import { Panel } from '@/ui/panel'

/** What the counter types, as it is typed: checked and turned into numbers when it is sent. */
export interface Notes {
  owner_name: string
  owner_contact: string
  complaint: string
  supply: string
  limit: string
  promised_on: string
  condition: Record<string, string>
}

export const emptyNotes: Notes = { owner_name: '', owner_contact: '', complaint: '', supply: '', limit: '', promised_on: '', condition: {} }

export const limitError = (typed: string): string | undefined =>
  typed.trim() === '' || centsOf(typed) !== null ? undefined : 'Write an amount, as 45 or 45.50.'

interface Props {
  notes: Notes
  onChange: (notes: Notes) => void
  prompts: readonly Prompt[]
}

export function IntakeFields({ notes, onChange, prompts }: Props) {
  const set = (part: Partial<Notes>) => onChange({ ...notes, ...part })
  const left = prompts.filter((p) => !notes.condition[p.id]).length
  return (
    <>
      <Panel title="The owner">
        <div className="grid gap-4 md:grid-cols-2">
          <TextField label="Name" value={notes.owner_name} maxLength={120} onChange={(e) => set({ owner_name: e.target.value })} autoComplete="off" />
          <TextField label="How to reach them" value={notes.owner_contact} maxLength={120} onChange={(e) => set({ owner_contact: e.target.value })} autoComplete="off" />
          <div className="md:col-span-2">
            <TextArea label="Complaint, in the owner's words" hint="Not what you think it is: the bench sees that for itself." value={notes.complaint} maxLength={2000} onChange={(e) => set({ complaint: e.target.value })} />
          </div>
          <TextField label="May be spent without asking" hint="In euro. Nothing beyond it is spent before the owner agrees." inputMode="decimal" placeholder="0.00" value={notes.limit} error={limitError(notes.limit)} onChange={(e) => set({ limit: e.target.value })} />
          <TextField label="Promised for" type="date" value={notes.promised_on} onChange={(e) => set({ promised_on: e.target.value })} />
          <div className="md:col-span-2">
            <TextField label="Power supply the owner uses" hint="The one inside, the one it came with, or another: a wrong supply blows fuses." value={notes.supply} maxLength={120} onChange={(e) => set({ supply: e.target.value })} />
          </div>
        </div>
      </Panel>
      <Panel title="Condition, before it is opened" aside={left === 0 ? 'all noted' : `${left} of ${prompts.length} still open`}>
        <div className="divide-y divide-line">
          {prompts.map((p) => (
            <div key={p.id} className="py-2">
              <Choice inline label={p.ask} choices={p.choices} value={notes.condition[p.id] ?? ''} onChange={(id) => set({ condition: { ...notes.condition, [p.id]: id } })} />
            </div>
          ))}
        </div>
      </Panel>
    </>
  )
}

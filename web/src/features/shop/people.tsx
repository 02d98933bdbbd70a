import { useState } from 'react'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { useWho } from '@/api/session'
import type { Person } from '@/api/types'
import { dayOf } from '@/lib/dates'
import { one, words } from '@/lib/fields'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { ChoiceInput, FieldsDialog, TextInput } from '@/ui/form-dialog'
import { Chip, Notice, Panel } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { useAddPerson, useChangePerson, useStaff } from './shop-queries'
import { ShopNav } from './shop-nav'
import { Traces } from './traces'

const ROLES = [
  { id: 'counter', label: 'Counter: takes in, agrees, hands back' },
  { id: 'technician', label: 'Technician: the bench, shelf and sheets as well' },
  { id: 'manager', label: 'Manager: everything, the shop’s figures and people too' },
]
type Role = Person['role']
const FIRST_HINT = 'Ten characters or more. It has to be changed at the first sign-in, so it may be said aloud.'
const FIELD_WORDS: Record<string, string> = { first_name: 'first name', last_name: 'last name', role: 'role', is_active: 'works here', password: 'password' }

export function People() {
  const staff = useStaff()
  const [open, setOpen] = useState<'add' | Person | null>(null)
  return (
    <Page
      title="People"
      lead="Who works here, and what they may do. Whoever is let go is signed out at once and stays on the tapes by name."
      actions={
        <Button kind="act" onClick={() => setOpen('add')}>
          Add somebody
        </Button>
      }
    >
      <ShopNav />
      <Asked of={staff} what="the people">
        {({ people, traces }) => (
          <>
            <Panel>
              <ul className="divide-y divide-line">
                {people.map((p) => (
                  <PersonRow key={p.username} person={p} onChange={() => setOpen(p)} />
                ))}
              </ul>
            </Panel>
            <Traces
              traces={traces}
              name={(t) => `${t.about.replace('person ', '')}: ${FIELD_WORDS[t.field] ?? t.field}`}
              value={(_, v) => (typeof v === 'boolean' ? (v ? 'yes' : 'no') : String(v || '–'))}
            />
          </>
        )}
      </Asked>
      {open === 'add' && <AddDialog onClose={() => setOpen(null)} />}
      {open !== null && open !== 'add' && <ChangeDialog person={open} onClose={() => setOpen(null)} />}
    </Page>
  )
}

function PersonRow({ person, onChange }: { person: Person; onChange: () => void }) {
  const change = useChangePerson()
  const isMe = useWho() === person.username
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2">
      <span className={`min-w-0 flex-1 basis-48 ${person.is_active ? '' : 'opacity-70'}`}>
        <span className="block font-semibold">{person.shown_name}</span>
        <span className="text-quiet">
          signs in as <span className="figures">{person.username}</span>, {person.last_login ? `last ${dayOf(person.last_login)}` : 'never yet'}
        </span>
      </span>
      <Chip tone={person.is_active ? 'plain' : 'brass'} className="text-[1rem]!">
        {person.is_active ? person.role : 'let go'}
      </Chip>
      {person.has_first_password && person.is_active && <Chip tone="brass">first password</Chip>}
      <span className="flex flex-wrap gap-2">
        <Button onClick={onChange}>Change</Button>
        {!isMe && (
          <Button disabled={change.isPending} onClick={() => change.mutate({ username: person.username, is_active: !person.is_active })}>
            {person.is_active ? 'Let go' : 'Let back in'}
          </Button>
        )}
      </span>
      {change.error && (
        <div className="basis-full">
          <Notice tone="danger" title="Not changed" role="alert">
            {change.error.message}
          </Notice>
        </div>
      )}
    </li>
  )
}

const ADDED = z.object({ username: words(BOUNDS.PersonIn.username), name: words(BOUNDS.PersonIn.name), role: one<Role>(), password: z.string().check(z.minLength(10, 'Ten characters or more.')) })

function AddDialog({ onClose }: { onClose: () => void }) {
  const add = useAddPerson()
  return (
    <FieldsDialog
      title="Add somebody"
      act="Add"
      schema={ADDED}
      start={{ username: '', name: '', role: '', password: '' }}
      error={add.error}
      isBusy={add.isPending}
      onSend={(told) => add.mutate(told, { onSuccess: onClose })}
      onClose={onClose}
    >
      <TextInput name="name" label="Name" hint="As it stands on tapes and reports." maxLength={BOUNDS.PersonIn.name.maxLength} />
      <TextInput name="username" label="Signs in as" hint="Letters and digits, as “nia”. It stays for good." maxLength={BOUNDS.PersonIn.username.maxLength} />
      <ChoiceInput name="role" label="Role" choices={ROLES} />
      <TextInput name="password" label="First password" hint={FIRST_HINT} maxLength={120} />
    </FieldsDialog>
  )
}

const CHANGED = z.object({ name: words(BOUNDS.PersonIn.name), role: one<Role>(), password: z.string().check(z.refine((p) => p === '' || p.length >= 10, 'Ten characters or more.')) })

function ChangeDialog({ person, onClose }: { person: Person; onClose: () => void }) {
  const change = useChangePerson()
  return (
    <FieldsDialog
      title={`Change ${person.shown_name}`}
      act="Save"
      schema={CHANGED}
      start={{ name: person.shown_name, role: person.role, password: '' }}
      error={change.error}
      isBusy={change.isPending}
      onSend={({ password, ...told }) => change.mutate({ username: person.username, ...told, ...(password ? { password } : {}) }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <TextInput name="name" label="Name" maxLength={BOUNDS.PersonIn.name.maxLength} />
      <ChoiceInput name="role" label="Role" choices={ROLES} />
      <TextInput name="password" label="A new first password, if theirs is lost" hint={`Left empty, theirs stays. ${FIRST_HINT}`} maxLength={120} />
    </FieldsDialog>
  )
}

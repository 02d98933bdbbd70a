import { useState } from 'react'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import type { Job } from '@/api/types'
import { one, words } from '@/lib/fields'
import { Button } from '@/ui/button'
import { ChoiceInput, FieldsDialog, TextInput } from '@/ui/form-dialog'
import { useBench } from '../frame/bench-context'

const WORDS = [
  { id: 'yes', label: 'Agreed' },
  { id: 'no', label: 'Not agreed: it is not done' },
] as const

const { what, by_name } = BOUNDS.AskAccountAsk
const ASKED = z.object({ what: words(what), by_name: words(by_name), word: one<'yes' | 'no'>() })

/** What the console wants on the owner's account is asked first: nothing is installed or copied without a yes that is written down. */
export function OnTheAccount({ said }: { said: Job['proof']['account'] }) {
  const { job, send, isBusy, mayWork } = useBench()
  const [isOpen, setOpen] = useState(false)
  return (
    <div className="mt-1.5">
      {said.map((a) => (
        <p key={a.at}>
          On the owner’s account: {a.what}; <b>{a.is_agreed ? `agreed by ${a.by_name}` : `not agreed by ${a.by_name}, not done`}</b>.
        </p>
      ))}
      {mayWork && (
        <Button kind="quiet" className="-ml-4" onClick={() => setOpen(true)}>
          The console wants to install or copy something
        </Button>
      )}
      {isOpen && (
        <FieldsDialog
          title="On the owner's account"
          note="Decline it where the proof can do without. Otherwise the owner is asked first."
          act="Write it down"
          schema={ASKED}
          start={{ what: '', by_name: job.owner_name, word: '' }}
          isBusy={isBusy}
          onSend={({ word, ...asked }) => {
            send({ do: 'ask_account', ...asked, is_agreed: word === 'yes' }, `On the owner's account: ${asked.what}`)
            setOpen(false)
          }}
          onClose={() => setOpen(false)}
        >
          <TextInput name="what" label="What it wants" hint="A system update, a copy of what was saved." maxLength={what.maxLength} />
          <TextInput name="by_name" label="Who was asked" maxLength={by_name.maxLength} />
          <ChoiceInput name="word" label="What they said" choices={WORDS} />
        </FieldsDialog>
      )}
    </div>
  )
}

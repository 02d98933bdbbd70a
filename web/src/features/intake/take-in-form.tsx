import { useState, type ReactNode } from 'react'
import { useSheets } from '@/api/sheets'
import type { Job, Prompt, Sheet } from '@/api/types'
import { centsOf } from '@/lib/money'
import { useTitle } from '@/lib/use-title'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Notice } from '@/ui/panel'
import { CameBack } from './came-back'
import { useDraft, type Draft } from './draft'
import { IntakeFields, limitError, promiseError } from './intake-fields'
import { usePrompts, useTakeIn } from './intake-queries'
import { KnownOwner } from './known-owner'
import { Taken } from './taken'
import { WhichUnit } from './which-unit'

interface Props {
  onOpen: (tag: string) => void
  /** How to find the drive by looking; calls back with its sheet. */
  identify: (onPick: (sheetId: number, seen: Record<string, string>) => void) => ReactNode
  /** How to begin a sheet for a drive that has none; calls back with it. */
  begin: (onMade: (sheetId: number) => void, onClose: () => void) => ReactNode
}

export function TakeInForm(props: Props) {
  useTitle('Take a unit in')
  const sheets = useSheets()
  const prompts = usePrompts()
  const [taken, setTaken] = useState<Job | null>(null)
  if (taken) return <Taken job={taken} onOpen={() => props.onOpen(taken.tag)} onAnother={() => setTaken(null)} />
  return (
    <Asked of={sheets} what="drive sheets">
      {(drives) => (
        <Asked of={prompts} what="the prompts">
          {(asked) => <Counter {...props} sheets={drives} prompts={asked} onTaken={setTaken} />}
        </Asked>
      )}
    </Asked>
  )
}

const bodyOf = ({ key, sheet, notes, returns, sameFault, looks }: Draft) => ({
  key,
  sheet_id: Number(sheet),
  owner_name: notes.owner_name.trim(),
  owner_contact: notes.owner_contact.trim(),
  complaint: notes.complaint.trim(),
  supply: notes.supply.trim(),
  limit_cents: centsOf(notes.limit),
  promised_on: notes.promised_on || null,
  condition: notes.condition,
  returns,
  is_same_fault: returns !== '' && sameFault === 'yes',
  looks,
})

/** What is missing before a unit can be taken in, in words; empty if nothing is. */
const missingIn = ({ sheet, notes, returns, sameFault }: Draft): string =>
  [
    sheet === '' && 'The console is missing.',
    notes.owner_name.trim() === '' && "The owner's name is missing.",
    returns !== '' && sameFault === '' && 'Say whether it is the same fault as before.',
    limitError(notes.limit),
    promiseError(notes),
  ]
    .filter(Boolean)
    .join(' ')


function Counter({ onTaken, identify, begin, sheets, prompts }: Props & { sheets: readonly Sheet[]; prompts: Prompt[]; onTaken: (job: Job) => void }) {
  const takeIn = useTakeIn()
  const { draft, setDraft, reset } = useDraft()
  const [isTried, setTried] = useState(false)
  const missing = missingIn(draft)
  const put = (part: Partial<Draft>) => setDraft({ ...draft, ...part })
  const submit = () => {
    setTried(true)
    if (missing) return
    const onSuccess = (job: Job) => {
      reset()
      onTaken(job)
    }
    takeIn.mutate(bodyOf(draft), { onSuccess })
  }
  return (
    <form
      className="mat-grid h-full overflow-y-auto p-4 lg:p-6"
      onSubmit={(event) => {
        event.preventDefault()
        submit()
      }}
    >
      <div className="mx-auto max-w-4xl space-y-4">
        <div>
          <h1 className="text-[1.55rem] font-bold">Take a unit in</h1>
          <p className="text-quiet">What you type stays in this browser until the unit has its tag. What is still open can be added later, before it goes to the bench.</p>
        </div>
        {draft.returns && <CameBack tag={draft.returns} draft={draft} onChange={put} />}
        <WhichUnit sheets={sheets} value={draft.sheet} isMissing={isTried && !draft.sheet} identify={identify} begin={begin} onChange={(sheet, looks = {}) => put({ sheet, looks })} />
        <IntakeFields notes={draft.notes} prompts={prompts} sheetId={draft.sheet ? Number(draft.sheet) : undefined} onChange={(notes) => put({ notes })}>
          <KnownOwner draft={draft} onChange={put} />
        </IntakeFields>
        {takeIn.error && (
          <Notice tone="danger" title="Not taken in yet" role="alert">
            {takeIn.error.message}
          </Notice>
        )}
        {isTried && missing && (
          <Notice tone="brass" role="alert">
            {missing}
          </Notice>
        )}
        <div className="flex flex-wrap gap-3 pb-6">
          <Button kind="act" type="submit" disabled={takeIn.isPending}>
            {takeIn.isPending ? 'Writing…' : 'Take it in and make a tag'}
          </Button>
          <Button kind="quiet" onClick={reset}>
            Clear the form
          </Button>
        </div>
      </div>
    </form>
  )
}

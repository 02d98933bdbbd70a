import { useState, type ReactNode } from 'react'
import { useSheets } from '@/api/sheets'
import type { Prompt, Sheet } from '@/api/types'
import { useKept } from '@/lib/kept'
import { centsOf } from '@/lib/money'
import { Asked } from '@/ui/asked'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Choice } from '@/ui/field'
import { Notice, Panel } from '@/ui/panel'
import { emptyNotes, IntakeFields, limitError, type Notes } from './intake-fields'
import { usePrompts, useTakeIn } from './intake-queries'

interface Draft {
  key: string
  sheet: string
  notes: Notes
}

const sheetName = (s: Sheet) => `${s.drive.maker} ${s.drive.console}, revision ${s.drive.revision} (drive ${s.drive.variant})`

interface Props {
  onTaken: (tag: string) => void
  /** How to find the drive by looking; calls back with its sheet. */
  identify: (onPick: (sheetId: number) => void) => ReactNode
}

export function TakeInForm(props: Props) {
  const sheets = useSheets()
  const prompts = usePrompts()
  return (
    <Asked of={sheets} what="drive sheets">
      {(drives) => (
        <Asked of={prompts} what="the prompts">
          {(asked) => <Counter {...props} sheets={drives} prompts={asked} />}
        </Asked>
      )}
    </Asked>
  )
}

const bodyOf = ({ key, sheet, notes }: Draft) => ({
  key,
  sheet_id: Number(sheet),
  owner_name: notes.owner_name.trim(),
  owner_contact: notes.owner_contact.trim(),
  complaint: notes.complaint.trim(),
  supply: notes.supply.trim(),
  limit_cents: centsOf(notes.limit),
  promised_on: notes.promised_on || null,
  condition: notes.condition,
})

/** What is missing before a unit can be taken in, in words; empty if nothing is. */
const missingIn = ({ sheet, notes }: Draft): string =>
  [sheet === '' && 'The console is missing.', notes.owner_name.trim() === '' && "The owner's name is missing.", limitError(notes.limit)].filter(Boolean).join(' ')

function Counter({ onTaken, identify, sheets, prompts }: Props & { sheets: readonly Sheet[]; prompts: Prompt[] }) {
  const takeIn = useTakeIn()
  const [fresh] = useState<Draft>(() => ({ key: crypto.randomUUID(), sheet: '', notes: emptyNotes }))
  const [draft, setDraft, clearDraft] = useKept<Draft>('take-in', fresh)
  const [isTried, setTried] = useState(false)
  const missing = missingIn(draft)
  const submit = () => {
    setTried(true)
    if (missing) return
    const onSuccess = (job: { tag: string }) => {
      clearDraft()
      onTaken(job.tag)
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
        <WhichUnit sheets={sheets} value={draft.sheet} isMissing={isTried && !draft.sheet} identify={identify} onChange={(sheet) => setDraft({ ...draft, sheet })} />
        <IntakeFields notes={draft.notes} prompts={prompts} onChange={(next) => setDraft({ ...draft, notes: next })} />
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
          <Button kind="quiet" onClick={clearDraft}>
            Clear the form
          </Button>
        </div>
      </div>
    </form>
  )
}

interface UnitProps extends Pick<Props, 'identify'> {
  sheets: readonly Sheet[]
  value: string
  isMissing: boolean
  onChange: (sheet: string) => void
}

function WhichUnit({ sheets, value, isMissing, identify, onChange }: UnitProps) {
  const [isLooking, setLooking] = useState(false)
  return (
    <Panel title="The unit">
      <Choice
        label="Which console lies on the counter?"
        choices={sheets.map((s) => ({ id: String(s.id), label: sheetName(s) }))}
        value={value}
        onChange={onChange}
        error={isMissing ? 'Choose the console. If none fits, it needs a drive sheet first.' : undefined}
      />
      <Button kind="quiet" className="mt-2 px-1!" onClick={() => setLooking(true)}>
        Not sure which: find it by looking
      </Button>
      <Dialog title="Which drive is this?" open={isLooking} onClose={() => setLooking(false)} note="Answer what can be seen; open nothing that need not be opened.">
        {identify((sheet) => {
          onChange(String(sheet))
          setLooking(false)
        })}
      </Dialog>
    </Panel>
  )
}

import { useState, type ReactNode } from 'react'
import { useSheets } from '@/api/sheets'
import type { Sheet } from '@/api/types'
import { useKept } from '@/lib/kept'
import { centsOf } from '@/lib/money'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Choice } from '@/ui/field'
import { Notice, Panel, Waiting } from '@/ui/panel'
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

export function TakeInForm({ onTaken, identify }: Props) {
  const sheets = useSheets()
  const prompts = usePrompts()
  const takeIn = useTakeIn()
  const [fresh] = useState<Draft>(() => ({ key: crypto.randomUUID(), sheet: '', notes: emptyNotes }))
  const [draft, setDraft, clearDraft] = useKept<Draft>('take-in', fresh)
  const [isTried, setTried] = useState(false)
  const [isLooking, setLooking] = useState(false)
  if (sheets.isPending || prompts.isPending) return <Waiting what="Fetching drive sheets and prompts…" />
  if (!sheets.data || !prompts.data)
    return (
      <div className="p-6">
        <Notice tone="danger" title="Drive sheets could not be fetched" role="alert">
          {(sheets.error ?? prompts.error)?.message}
        </Notice>
      </div>
    )
  const { notes } = draft
  const isReady = draft.sheet !== '' && notes.owner_name.trim() !== '' && !limitError(notes.limit)
  const submit = () => {
    setTried(true)
    if (!isReady) return
    takeIn.mutate(
      {
        key: draft.key,
        sheet_id: Number(draft.sheet),
        owner_name: notes.owner_name.trim(),
        owner_contact: notes.owner_contact.trim(),
        complaint: notes.complaint.trim(),
        supply: notes.supply.trim(),
        limit_cents: centsOf(notes.limit),
        promised_on: notes.promised_on || null,
        condition: notes.condition,
      },
      {
        onSuccess: (job) => {
          clearDraft()
          onTaken(job.tag)
        },
      },
    )
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
        <Panel title="The unit">
          <Choice
            label="Which console lies on the counter?"
            choices={sheets.data.map((s) => ({ id: String(s.id), label: sheetName(s) }))}
            value={draft.sheet}
            onChange={(sheet) => setDraft({ ...draft, sheet })}
            error={isTried && !draft.sheet ? 'Choose the console. If none fits, it needs a drive sheet first.' : undefined}
          />
          <Button kind="quiet" className="mt-2 px-1!" onClick={() => setLooking(true)}>
            Not sure which: find it by looking
          </Button>
          <Dialog title="Which drive is this?" open={isLooking} onClose={() => setLooking(false)} note="Answer what can be seen; open nothing that need not be opened.">
            {identify((sheet) => {
              setDraft({ ...draft, sheet: String(sheet) })
              setLooking(false)
            })}
          </Dialog>
        </Panel>
        <IntakeFields notes={notes} prompts={prompts.data} onChange={(next) => setDraft({ ...draft, notes: next })} />
        {takeIn.error && (
          <Notice tone="danger" title="Not taken in yet" role="alert">
            {takeIn.error.message}
          </Notice>
        )}
        {isTried && !isReady && (
          <Notice tone="brass" role="alert">
            {draft.sheet === '' ? 'The console is missing. ' : ''}
            {notes.owner_name.trim() === '' ? "The owner's name is missing. " : ''}
            {limitError(notes.limit) ?? ''}
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

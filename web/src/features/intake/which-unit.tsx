import { useState, type KeyboardEvent, type ReactNode } from 'react'
import type { Sheet } from '@/api/types'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Choice, TextField } from '@/ui/field'
import { Panel } from '@/ui/panel'

interface Props {
  sheets: readonly Sheet[]
  value: string
  isMissing: boolean
  identify: (onPick: (sheetId: number, seen: Record<string, string>) => void) => ReactNode
  begin: (onMade: (sheetId: number) => void, onClose: () => void) => ReactNode
  onChange: (sheet: string, looks?: Record<string, string>) => void
}

const sheetName = ({ drive }: Sheet): string => `${drive.maker} ${drive.console}, revision ${drive.revision} (drive ${drive.variant})`

/** A word begins one of the name's, so that "orlo 4" is not the Orlo 3 with drive VM-S41; one with a dash may stand anywhere. */
const holds = (name: string, word: string): boolean => (word.includes('-') ? name.includes(word) : name.split(/[^a-z0-9]+/).some((part) => part.startsWith(word)))

/** Consoles whose name holds every word; the one that is chosen stays in sight. */
const shownOf = (sheets: readonly Sheet[], words: string, value: string): Sheet[] => {
  const typed = words.toLowerCase().split(/\s+/).filter(Boolean)
  return sheets.filter((s) => String(s.id) === value || typed.every((w) => holds(sheetName(s).toLowerCase(), w)))
}

/** Which console lies on the counter: by typing, by looking, or one that nobody here has seen yet. */
export function WhichUnit({ sheets, value, isMissing, identify, begin, onChange }: Props) {
  const [words, setWords] = useState('')
  const [open, setOpen] = useState<'look' | 'new' | null>(null)
  const shown = shownOf(sheets, words, value)
  const pick = (sheet: number, looks: Record<string, string> = {}) => {
    onChange(String(sheet), looks)
    setWords('')
    setOpen(null)
  }
  const takeTheOne = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key !== 'Enter' || words.trim() === '') return
    event.preventDefault() // the form is not sent by it
    const fits = shownOf(sheets, words, '')
    if (fits.length !== 1) return
    pick(fits[0]!.id)
    event.currentTarget.form?.querySelector<HTMLElement>('[name=owner_name]')?.focus()
  }
  return (
    <Panel title="The unit">
      {sheets.length > 4 && (
        <div className="mb-3 max-w-md">
          <TextField label="Maker, console or drive" value={words} maxLength={80} autoComplete="off" autoFocus hint="Enter takes the one that is left, and goes on to the owner." onChange={(e) => setWords(e.target.value)} onKeyDown={takeTheOne} />
        </div>
      )}
      <Choice
        isGrid
        label="Which console lies on the counter?"
        choices={shown.map((s) => ({ id: String(s.id), label: sheetName(s) }))}
        value={value}
        onChange={(sheet) => onChange(sheet)}
        error={isMissing ? 'Choose the console, or begin a sheet for one that is not here.' : undefined}
      />
      {shown.length === 0 && <p className="text-quiet">No console here is called so.</p>}
      <p className="mt-2 flex flex-wrap gap-x-4">
        <Button kind="quiet" className="px-1!" onClick={() => setOpen('look')}>
          Not sure which: find it by looking
        </Button>
        <Button kind="quiet" className="px-1!" onClick={() => setOpen('new')}>
          None of these: a drive we have never seen
        </Button>
      </p>
      <Dialog title="Which drive is this?" open={open === 'look'} onClose={() => setOpen(null)} note="Answer what can be seen; open nothing that need not be opened. Where two are left, take either: the bench decides.">
        {identify(pick)}
      </Dialog>
      {open === 'new' && begin((sheet) => pick(sheet), () => setOpen(null))}
    </Panel>
  )
}

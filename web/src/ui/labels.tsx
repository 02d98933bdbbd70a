import { useState } from 'react'
import { labelSheet, MOST_LABELS as BOUNDS } from '@/lib/label-sheet'
import { wholeOf } from '@/lib/whole'
import { Button } from './button'
import { Dialog } from './dialog'
import { TextField } from './field'

/** Printing labels: how the sheet is divided, and how many of its labels are used up already. */
export function PrintLabels({ tags, children, className = '' }: { tags: readonly string[]; children: string; className?: string }) {
  const [isOpen, setOpen] = useState(false)
  const [columns, setColumns] = useState('')
  const [rows, setRows] = useState('')
  const [skip, setSkip] = useState('0')
  const [across, down] = [wholeOf(columns, 1, BOUNDS.columns), wholeOf(rows, 1, BOUNDS.rows)]
  const used = across && down ? wholeOf(skip, 0, across * down - 1) : null
  const query = new URLSearchParams([...tags.map((t) => ['tags', t]), ['columns', columns], ['rows', rows], ['skip', skip]])
  const open = () => {
    setColumns(String(labelSheet().columns))
    setRows(String(labelSheet().rows))
    setOpen(true)
  }
  return (
    <>
      <Button className={className} onClick={open}>
        {children}
      </Button>
      {isOpen && (
        <Dialog title={tags.length === 1 ? `Label of ${tags[0]}` : `${tags.length} labels`} open onClose={() => setOpen(false)} note="On A4, each with its code, its tag and two lines.">
          <div className="grid gap-3 sm:grid-cols-3">
            <TextField label="Labels across" inputMode="numeric" value={columns} error={across === null ? `From 1 to ${BOUNDS.columns}.` : undefined} onChange={(e) => setColumns(e.target.value)} />
            <TextField label="Labels down" inputMode="numeric" value={rows} error={down === null ? `From 1 to ${BOUNDS.rows}.` : undefined} onChange={(e) => setRows(e.target.value)} />
            <TextField label="Used up already" hint="The first so many are left out." inputMode="numeric" value={skip} error={used === null ? 'Fewer than are on the sheet.' : undefined} onChange={(e) => setSkip(e.target.value)} />
          </div>
          <p className="mt-4 flex flex-wrap gap-3">
            {used !== null && (
              <a className="inline-flex min-h-11 items-center rounded-lg border border-ink bg-ink px-3.5 font-semibold text-paper" href={`/api/labels.pdf?${query}`} target="_blank" rel="noreferrer">
                Open the PDF
              </a>
            )}
            {tags.length === 1 && (
              <a className="inline-flex min-h-11 items-center rounded-lg border border-ink/55 px-3.5" href={`/api/labels/${tags[0]}`} download={`${tags[0]}.svg`}>
                Its code alone, as SVG
              </a>
            )}
          </p>
        </Dialog>
      )}
    </>
  )
}

import { useState } from 'react'
import { wholeOf } from '@/lib/whole'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'

interface Props {
  title: string
  /** How many there are; 1 asks for no number. */
  most: number
  error: Error | null
  isBusy: boolean
  onScrap: (count: number, why: string) => void
  onClose: () => void
}

/** Something goes for good, with a reason. */
export function ScrapDialog({ title, most, error, isBusy, onScrap, onClose }: Props) {
  const [count, setCount] = useState('1')
  const [why, setWhy] = useState('')
  const n = wholeOf(count, 1, most)
  return (
    <Dialog title={title} open onClose={onClose} note="Electronics go where your local rules send them.">
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (n !== null && why.trim()) onScrap(n, why.trim())
        }}
      >
        {most > 1 && <TextField label={`How many of ${most}`} inputMode="numeric" value={count} error={n !== null ? undefined : `A whole number from 1 to ${most}.`} onChange={(e) => setCount(e.target.value)} />}
        <TextField label="Why" value={why} maxLength={120} onChange={(e) => setWhy(e.target.value)} />
        {error && (
          <Notice tone="danger" title="Not written" role="alert">
            {error.message}
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={n === null || !why.trim() || isBusy}>
          Throw away
        </Button>
      </form>
    </Dialog>
  )
}

import { useState } from 'react'
import { BOUNDS } from '@/api/bounds'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { useBench } from '../frame/bench-context'
import { PartDialog } from './part-dialog'
import { PartsThatFit } from './parts-that-fit'

/** Which part goes in: its tag scanned or typed, one of those that fit, or one that has no tag. Stock, price and trial follow from it. */
export function PartIn() {
  const { job, send, isBusy, mayWork } = useBench()
  const [tag, setTag] = useState('')
  const [isNoting, setNoting] = useState(false)
  const repair = job.procedure?.repair ?? ''
  if (!mayWork) return null
  return (
    <div className="mt-2 space-y-3">
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (tag.trim() && !isBusy) send({ do: 'take_part', part: tag.trim(), repair }, `Take ${tag.trim()}`)
        }}
      >
        <TextField label="Its tag, scanned or typed" value={tag} maxLength={BOUNDS.TakePartAsk.part.maxLength} autoFocus onChange={(e) => setTag(e.target.value)} />
        <Button kind="act" type="submit" disabled={isBusy || !tag.trim()}>
          This one goes in
        </Button>
        <Button disabled={isBusy} onClick={() => setNoting(true)}>
          It has no tag
        </Button>
      </form>
      <PartsThatFit repair={repair} />
      {isNoting && <PartDialog repair={repair} onClose={() => setNoting(false)} />}
    </div>
  )
}

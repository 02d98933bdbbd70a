import { useState } from 'react'
import { wholeOf } from '@/lib/whole'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { useMinimum } from './shelf-queries'

/** How many of a kind there should be at least, what is on its way counted. */
export function MinimumForm({ level, code }: { level: string; code: string }) {
  const minimum = useMinimum()
  const [count, setCount] = useState('')
  const least = wholeOf(count, 0)
  return (
    <form
      className="mt-3 flex flex-wrap items-end gap-2 border-t border-line pt-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (least !== null) minimum.mutate({ level, code, count: least })
      }}
    >
      <TextField label="There should be at least" inputMode="numeric" className="min-h-11 w-28 rounded-lg border border-ink/55 bg-paper px-3 figures" value={count} error={count && least === null ? 'A whole number.' : undefined} onChange={(e) => setCount(e.target.value)} />
      <Button type="submit" disabled={least === null || minimum.isPending}>
        Set
      </Button>
      {minimum.isSuccess && <span role="status">Set. What runs low stands under Wanted.</span>}
      {minimum.error && <span role="alert" className="text-danger">{minimum.error.message}</span>}
    </form>
  )
}

import { useState } from 'react'
import { Button } from '@/ui/button'
import { Select, TextField } from '@/ui/field'
import { Panel } from '@/ui/panel'
import type { Run } from './practice-queries'

/** Which part, and how sure: said once, before it is known, and scored afterwards. */
export function FirstGuess({ run, isBusy, onGuess }: { run: Run; isBusy: boolean; onGuess: (part: string, percent: number) => void }) {
  const [part, setPart] = useState('')
  const [percent, setPercent] = useState('')
  const said = Number(percent)
  const isReady = part !== '' && percent.trim() !== '' && Number.isInteger(said) && said >= 0 && said <= 100
  if (run.guess)
    return (
      <Panel title="Your first guess" level={3}>
        <p>{run.guess}</p>
      </Panel>
    )
  if (!run.may_guess) return null
  return (
    <Panel title="Your first guess" level={3}>
      <p className="mb-1.5 text-tiny text-quiet">Said once, before the first repair.</p>
      <form
        className="space-y-2"
        onSubmit={(e) => {
          e.preventDefault()
          if (isReady && !isBusy) onGuess(part, said)
        }}
      >
        <Select label="Part" choices={run.parts.map((p) => ({ id: p.id, label: p.name }))} value={part} onChange={setPart} />
        <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
          <TextField label="Percent" inputMode="numeric" value={percent} onChange={(e) => setPercent(e.target.value)} />
          <Button type="submit" disabled={!isReady || isBusy}>
            Note it
          </Button>
        </div>
      </form>
    </Panel>
  )
}

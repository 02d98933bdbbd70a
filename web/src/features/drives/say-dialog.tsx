import { useState } from 'react'
import { useSay } from '@/api/sheets'
import type { SheetForm, Verdict } from '@/api/types'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Choice, TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'

export interface Saying {
  level: string
  code: string
  variant: string
  now: Verdict
}

const VERDICTS = ['fits', 'transfers', 'part', 'no'] as const
type Said = (typeof VERDICTS)[number]

/** What the bench found, or what somebody claims: one step, kept with who and when. */
export function SayDialog({ saying, form, onClose }: { saying: Saying; form: SheetForm; onClose: () => void }) {
  const say = useSay()
  const [verdict, setVerdict] = useState<Said | ''>(saying.now === 'fits' || saying.now === 'transfers' ? 'no' : '')
  const [origin, setOrigin] = useState('shop')
  const [reason, setReason] = useState('')
  const [who, setWho] = useState('')
  const [works, setWorks] = useState<string[]>([])
  const functions = [...new Set(form.levels.flatMap((l) => l.functions))]
  const isClaim = origin === 'seller' || origin === 'hearsay'
  const isReady = verdict !== '' && (!isClaim || who.trim() !== '') && (verdict !== 'part' || works.length > 0)
  const save = () => {
    if (!isReady) return
    const { level, code, variant } = saying
    say.mutate(
      { level, code, variant, verdict, reason: reason.trim(), origin: origin as 'shop', confidence: isClaim ? 'doubtful' : 'sure', said: who.trim(), works: verdict === 'part' ? works : [] },
      { onSuccess: onClose },
    )
  }
  return (
    <Dialog title={`${saying.code} for ${saying.variant}`} open onClose={onClose} note="It is kept with your name and today's date, and shown wherever this part or drive is.">
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <Choice label="It" choices={VERDICTS.map((v) => ({ id: v, label: form.verdicts[v] ?? v }))} value={verdict} onChange={(v) => setVerdict(v as Said)} />
        {verdict === 'part' && (
          <fieldset>
            <legend className="mb-1 font-semibold">It works in</legend>
            <div className="flex flex-wrap gap-x-4">
              {functions.map((f) => (
                <label key={f} className="inline-flex min-h-11 items-center gap-2">
                  <input type="checkbox" className="size-5" checked={works.includes(f)} onChange={() => setWorks(works.includes(f) ? works.filter((w) => w !== f) : [...works, f])} />
                  {f}
                </label>
              ))}
            </div>
          </fieldset>
        )}
        <TextField label="Why" hint="What was seen: it goes in and never focuses, the pinion is one tooth short." value={reason} maxLength={120} onChange={(e) => setReason(e.target.value)} />
        <Choice label="Whose word is it?" choices={Object.entries(form.origins).map(([id, label]) => ({ id, label }))} value={origin} onChange={setOrigin} />
        <TextField label={isClaim ? 'Who says so?' : 'In which unit, how often?'} value={who} maxLength={120} onChange={(e) => setWho(e.target.value)} />
        {say.error && (
          <Notice tone="danger" title="Not written" role="alert">
            {say.error.message}
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={!isReady || say.isPending}>
          {say.isPending ? 'Writing…' : 'Write it down'}
        </Button>
      </form>
    </Dialog>
  )
}

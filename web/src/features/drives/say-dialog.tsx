import { useFormContext, useWatch } from 'react-hook-form'
import * as z from 'zod/mini'
import { BOUNDS } from '@/api/bounds'
import { useSay } from '@/api/sheets'
import type { SheetForm, Verdict } from '@/api/types'
import { one, text } from '@/lib/fields'
import { ChoiceInput, FieldsDialog, TextInput } from '@/ui/form-dialog'

export interface Saying {
  level: string
  code: string
  variant: string
  now: Verdict
}

const VERDICTS = ['fits', 'transfers', 'part', 'no'] as const
type Said = (typeof VERDICTS)[number]

const isClaim = (origin: string): boolean => origin === 'seller' || origin === 'hearsay'
const SAID = z
  .object({ verdict: one<Said>(), origin: one<'shop' | 'seller' | 'hearsay'>(), reason: text(BOUNDS.SayIn.reason), said: text(BOUNDS.SayIn.said), works: z.array(z.string()) })
  .check(z.refine((s) => !isClaim(s.origin) || s.said !== ''))
  .check(z.refine((s) => s.verdict !== 'part' || s.works.length > 0))

/** What the bench found, or what somebody claims: one step, kept with who and when. */
export function SayDialog({ saying, form, onClose }: { saying: Saying; form: SheetForm; onClose: () => void }) {
  const say = useSay()
  const { level, code, variant, now } = saying
  return (
    <FieldsDialog
      title={`${code} for ${variant}`}
      note="It is kept with your name and today's date, and shown wherever this part or drive is."
      act="Write it down"
      schema={SAID}
      start={{ verdict: now === 'fits' || now === 'transfers' ? 'no' : '', origin: 'shop', reason: '', said: '', works: [] }}
      error={say.error}
      isBusy={say.isPending}
      onSend={(s) => say.mutate({ level, code, variant, ...s, confidence: isClaim(s.origin) ? 'doubtful' : 'sure', works: s.verdict === 'part' ? s.works : [] }, { onSuccess: onClose })}
      onClose={onClose}
    >
      <SayFields form={form} />
    </FieldsDialog>
  )
}

function SayFields({ form }: { form: SheetForm }) {
  const { setValue } = useFormContext<{ works: string[] }>()
  const [verdict, origin, works] = useWatch({ name: ['verdict', 'origin', 'works'] }) as [string, string, string[]]
  const flip = (f: string) => setValue('works', works.includes(f) ? works.filter((w) => w !== f) : [...works, f], { shouldValidate: true })
  return (
    <>
      <ChoiceInput name="verdict" label="It" choices={VERDICTS.map((v) => ({ id: v, label: form.verdicts[v] ?? v }))} />
      {verdict === 'part' && (
        <fieldset>
          <legend className="mb-1 font-semibold">It works in</legend>
          <div className="flex flex-wrap gap-x-4">
            {[...new Set(form.levels.flatMap((l) => l.functions))].map((f) => (
              <label key={f} className="inline-flex min-h-11 items-center gap-2">
                <input type="checkbox" className="size-5" checked={works.includes(f)} onChange={() => flip(f)} />
                {f}
              </label>
            ))}
          </div>
        </fieldset>
      )}
      <TextInput name="reason" label="Why" hint="What was seen: it goes in and never focuses, the pinion is one tooth short." maxLength={BOUNDS.SayIn.reason.maxLength} />
      <ChoiceInput name="origin" label="Whose word is it?" choices={Object.entries(form.origins).map(([id, label]) => ({ id, label }))} />
      <TextInput name="said" label={isClaim(origin) ? 'Who says so?' : 'In which unit, how often?'} maxLength={BOUNDS.SayIn.said.maxLength} />
    </>
  )
}

import { client } from '@/api/client'
import { useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import { useMay } from '@/api/session'
import type { UnitMat } from '@/api/types'
import { useKept } from '@/lib/kept'
import { decimalOf } from '@/lib/whole'
import { Button } from '@/ui/button'
import { Choice, Select, TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'
import { Picture } from '@/ui/picture'
import { useBench } from '../frame/bench-context'
import { isOff, MainsButton } from '../frame/mains'
import { TakePhoto } from '../photos/take-photo'

const KINDS = ['screws', 'clip', 'connector', 'lift off', 'tape', 'glue', 'flap', 'other'] as const
const WHOSE = [{ id: 'console', label: 'Outside: the console' }, { id: 'drive', label: 'Inside: the drive' }] // prettier-ignore
const DEPTHS = ['cover off', 'drive open', 'deck out'] as const
const SIDES = ['top', 'underside', 'front', 'back'] as const
const own = (words: readonly string[]) => words.map((w) => ({ id: w, label: w }))

interface Said {
  whose: 'console' | 'drive'
  step: string
  kind: (typeof KINDS)[number]
  count: string
  length: string
  thread: string
  latch: string
  side: string
  opens_to: string
  how: string
  falls: string
}
const BLANK: Said = { whose: 'console', step: '', kind: 'screws', count: '', length: '', thread: '', latch: '', side: '', opens_to: '', how: '', falls: '' }

/** A unit that no sheet knows: each step is written down as it is done, counts as open from then on, and becomes a row of the sheets. */
export function RecordStep({ mat }: { mat: UnitMat }) {
  const { job, send, isBusy, mayWork } = useBench()
  const places = WHOSE.filter((w) => mat.to_record.includes(w.id))
  const [kept, setSaid] = useKept<Said>(`recording:${job.tag}`, BLANK)
  const said = { ...kept, whose: (places.find((w) => w.id === kept.whose)?.id ?? places[0]?.id ?? 'console') as Said['whose'] } // a sheet may have its order by now
  const set = (more: Partial<Said>) => setSaid({ ...said, ...more })
  const needsOut = isOff({ mains: 'out' }, job)
  const sizes = said.kind === 'screws' ? [said.count, said.length, said.thread].map((t) => decimalOf(t) ?? 0) : [0, 0, 0]
  const isReady = said.step.trim() !== '' && (said.kind !== 'screws' || sizes.every((n) => n > 0)) && (said.kind !== 'connector' || said.latch !== '')
  const record = () => {
    const { whose, step, kind, side, opens_to, how, falls } = said
    send({ do: 'record_step', whose, step: step.trim(), kind, side, opens_to, how: how.trim(), falls: falls.trim(), latch: kind === 'connector' ? said.latch : '', count: sizes[0]!, length_mm: sizes[1]!, thread_mm: sizes[2]! }, `Recorded: ${step.trim()}`) // prettier-ignore
    setSaid({ ...BLANK, whose, side })
  }
  if (!mayWork) return null
  if (needsOut)
    return (
      <Notice tone="brass" title="It is opened with the mains out">
        <MainsButton to="out" className="mt-1" />
      </Notice>
    )
  return (
    <form
      aria-label="What was just done"
      className="space-y-3 rounded-xl border-[1.5px] border-ink bg-paper p-4"
      onSubmit={(event) => {
        event.preventDefault()
        if (isReady && !isBusy) record()
      }}
    >
      <PhotoOfIt taken={mat.next_picture} says={said.step.trim()} />
      <Choice label="Where?" choices={places} value={said.whose} onChange={(whose) => set({ whose: whose as Said['whose'] })} />
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="What was just undone?" hint="A name of its own: cover screws, pickup flex." value={said.step} maxLength={120} onChange={(e) => set({ step: e.target.value })} />
        <Select label="Kind" choices={own(KINDS)} value={said.kind} onChange={(kind) => kind && set({ kind: kind as Said['kind'] })} />
      </div>
      <Details said={said} latches={mat.latches} set={set} />
      <Button kind="act" type="submit" disabled={!isReady || isBusy}>
        It is done: write it down
      </Button>
    </form>
  )
}

/** A photo from before it was undone goes into the sheet with the step that is written down next. */
function PhotoOfIt({ taken, says }: { taken: string; says: string }) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      {taken && (
        <figure className="flex items-center gap-2">
          <Picture key={taken} hash={taken} says="The photo that goes with this step" className="w-28" />
          <figcaption className="max-w-40 text-tiny text-quiet">Goes into the sheet with this step</figcaption>
        </figure>
      )}
      <TakePhoto of="" moment="before" says={says} label={taken ? 'Another photo of it' : 'Photo before it is undone'} />
    </div>
  )
}

function Details({ said, latches, set }: { said: Said; latches: readonly string[]; set: (more: Partial<Said>) => void }) {
  return (
    <>
      {said.kind === 'screws' && (
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField label="How many" inputMode="numeric" value={said.count} maxLength={2} onChange={(e) => set({ count: e.target.value })} />
          <TextField label="Length, mm" inputMode="decimal" value={said.length} maxLength={5} onChange={(e) => set({ length: e.target.value })} />
          <TextField label="Thread, mm" inputMode="decimal" value={said.thread} maxLength={5} onChange={(e) => set({ thread: e.target.value })} />
        </div>
      )}
      {said.kind === 'connector' && <Select label="Held by" choices={own(latches)} value={said.latch} onChange={(latch) => set({ latch })} />}
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="How it lets go" value={said.how} maxLength={120} onChange={(e) => set({ how: e.target.value })} />
        <TextField label="Falls out if turned over" value={said.falls} maxLength={120} onChange={(e) => set({ falls: e.target.value })} />
        <Select label="Side up" choices={own(SIDES)} value={said.side} onChange={(side) => set({ side })} empty="Not noted" />
        <Select label="Now it is open to" choices={own(DEPTHS)} value={said.opens_to} onChange={(opens_to) => set({ opens_to })} empty="No further than before" />
      </div>
    </>
  )
}

/** What was recorded goes into the sheets, for the next unit of its kind; the last step can be taken back before. */
export function RecordedSteps({ mat }: { mat: UnitMat }) {
  const { job, send, isBusy } = useBench()
  const maySheets = useMay('sheets')
  const draft = useOnce((body: { key: string }) => dataOf(client.POST('/api/jobs/{tag}/recorded-sheets', { params: { path: { tag: job.tag } }, body })), ['mat', 'console', 'sheet', 'sheets', 'job'])
  const last = mat.recorded.at(-1)
  if (last === undefined) return null
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Button disabled={isBusy} onClick={() => send({ do: 'strike', line: last, why: 'not so' }, 'The last recorded step was not so')}>
        Take the last one back
      </Button>
      {maySheets && (
        <Button disabled={draft.isPending} onClick={() => draft.mutate({})}>
          {draft.isPending ? 'Writing…' : mat.recorded.length === 1 ? 'Make this step the sheets’ order' : `Make the ${mat.recorded.length} steps the sheets’ order`}
        </Button>
      )}
      {draft.data && !draft.error && <Notice title={`Written: ${draft.data.written.join('; ')}`} role="status" />}
      {draft.error && (
        <Notice tone="danger" title="Not written" role="alert">
          {draft.error.message}
        </Notice>
      )}
    </div>
  )
}

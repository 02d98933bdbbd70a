import { useWho } from '@/api/session'
import { useKept } from '@/lib/kept'
import { useKeys } from '@/lib/use-keys'
import { Button } from '@/ui/button'
import { Choice, Select, TextField } from '@/ui/field'
import { FormDialog } from '@/ui/form-dialog'
import { Notice } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { isOff, MainsButton, MAINS_IS } from '../frame/mains'
import { Functions, HEALTHS, type FunctionName, type Health } from '../parts/item-fields'

const RESULTS = [
  { id: 'clean', label: 'Works', hotkey: '1' },
  { id: 'no_change', label: 'No change', hotkey: '2' },
  { id: 'changed', label: 'Part of it changed', hotkey: '3' },
  { id: 'worse', label: 'Worse', hotkey: '4' },
] as const
const LIVE = { mains: 'live' }
type Result = (typeof RESULTS)[number]['id']

interface Draft {
  repair: string
  item: string
  health: Health | ''
  works: FunctionName[]
  fails: FunctionName[]
  stays: boolean
}
const blank = (repair = ''): Draft => ({ repair, item: '', health: '', works: [], fails: [], stays: false })

interface Kept {
  changes: Draft[]
  result: Result | ''
}

/** What a trial after one or more changes showed. A part that went in is only as good as what is known of it.
    Half of one survives Escape and a reload: it is kept in this browser until it is logged. */
export function TrialDialog({ repair, onClose }: { repair: string; onClose: () => void }) {
  const { job, send, isBusy } = useBench()
  const usesItem = (id: string) => job.repairs.find((r) => r.id === id)?.uses_item === true
  const atHand = job.diagnosis.swaps.parts.find((p) => p.repair === repair)
  const fresh: Kept = { changes: [atHand ? { ...blank(repair), item: atHand.item, health: atHand.health as Health, works: atHand.works as FunctionName[], fails: atHand.fails as FunctionName[] } : blank(repair)], result: '' }
  const [{ changes, result }, setDraft, forget] = useKept<Kept>(`trial:${useWho()}:${job.tag}:${repair}`, fresh)
  const setChanges = (next: Draft[]) => setDraft({ changes: next, result })
  const setResult = (next: Result | '') => setDraft({ changes, result: next })
  const isReady = result !== '' && !isOff(LIVE, job) && changes.every((c) => c.repair && (!usesItem(c.repair) || c.health))
  const alter = (n: number, more: Partial<Draft>) => setChanges(changes.map((c, i) => (i === n ? { ...c, ...more } : c)))
  const isKnown = repair !== '' && changes.every((c) => !usesItem(c.repair) || c.health !== '')
  useKeys(Object.fromEntries(RESULTS.map((r) => [r.hotkey, () => setResult(r.id)])), { inDialog: true })
  const name = (id: string) => job.repairs.find((r) => r.id === id)?.name ?? ''
  const save = () => {
    if (result === '') return
    const sent = changes.map((c) => (usesItem(c.repair) ? { ...c, item: c.item.trim(), health: c.health as Health } : { repair: c.repair, item: '', health: 'proven' as const }))
    const says = `Trial: ${changes.map((c) => name(c.repair)).join(' and ')}, ${RESULTS.find((r) => r.id === result)!.label.toLowerCase()}`
    send({ do: 'trial', changes: sent, result, clean_passes: result === 'clean' ? 1 : 0 }, says)
    forget()
    onClose()
  }
  return (
    <FormDialog
      title="Log a trial"
      note="One change at a time: what changed together shares the credit."
      act="Log the trial"
      isReady={isReady}
      isBusy={isBusy}
      onSend={save}
      onClose={onClose}
    >
        {changes.map((c, n) => (
          <ChangeFields key={n} change={c} usesItem={usesItem(c.repair)} canStay={result === 'no_change' || result === 'worse'} onChange={(more) => alter(n, more)} onDrop={n > 0 ? () => setChanges(changes.filter((_, i) => i !== n)) : undefined} />
        ))}
        {changes.length < 4 && (
          <Button kind="quiet" className="px-1!" onClick={() => setChanges([...changes, blank()])}>
            Something else was changed too
          </Button>
        )}
        <Choice label="What did the trial show?" isStart={isKnown} choices={RESULTS} value={result} onChange={(id) => setResult(id as Result)} />
        {result === 'changed' && <Notice tone="brass">What the drive did before counts no more: ask the stages again, what was measured on parts stands.</Notice>}
        {isOff(LIVE, job) && (
          <Notice tone="brass" title={`A trial needs the mains live; it is ${MAINS_IS[job.power]}`}>
            <MainsButton to="live" className="mt-1" />
          </Notice>
        )}
    </FormDialog>
  )
}

interface FieldProps {
  change: Draft
  usesItem: boolean
  canStay: boolean
  onChange: (more: Partial<Draft>) => void
  onDrop: (() => void) | undefined
}

function ChangeFields({ change, usesItem, canStay, onChange, onDrop }: FieldProps) {
  const { job } = useBench()
  return (
    <div className={onDrop ? 'space-y-3 border-t border-line pt-3' : 'space-y-3'}>
      <Select label={onDrop ? 'What else?' : 'What was changed?'} choices={job.repairs.map((r) => ({ id: r.id, label: r.name }))} value={change.repair} onChange={(repair) => onChange({ repair })} />
      {usesItem && (
        <>
          <TextField label="Tag of the part that went in" hint="The same part tried twice counts once. Leave empty if it has none." value={change.item} maxLength={60} onChange={(e) => onChange({ item: e.target.value })} />
          <Choice label="What is known of it?" choices={HEALTHS} value={change.health} onChange={(id) => onChange({ health: id as Health })} />
          {change.health === 'unknown' && <Functions value={change.works} onChange={(works) => onChange({ works })} />}
          {canStay && (
            <Choice
              label="And now?"
              choices={[
                { id: 'back', label: 'The original goes back in' },
                { id: 'stays', label: 'It stays in' },
              ]}
              value={change.stays ? 'stays' : 'back'}
              onChange={(id) => onChange({ stays: id === 'stays' })}
            />
          )}
        </>
      )}
      {onDrop && (
        <Button kind="quiet" className="px-1!" onClick={onDrop}>
          Leave this one out
        </Button>
      )}
    </div>
  )
}

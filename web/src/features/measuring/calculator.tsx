import { useEffect, useState } from 'react'
import { useWho } from '@/api/session'
import type { Told, Tool, ToolField } from '@/api/types'
import { useKept } from '@/lib/kept'
import { Button } from '@/ui/button'
import { Select } from '@/ui/field'
import { Notice, Waiting } from '@/ui/panel'
import { FieldInput } from './field-input'
import { inOrder, ready, sorted, starting, unitOf, type Inputs } from './inputs'
import { useMeasured, useTold } from './measuring-queries'
import { RowsField } from './rows-field'
import { RunChart } from './run-chart'
import { ToldCard } from './told-card'
import type { Held } from './use-live'

export interface Kept {
  tool: string
  inputs: Inputs
  about: string
  /** The question of the drive that it answers; empty where it is only kept. */
  question: string
  headline: string
}

/** What a drive's sheet says of the thing that is measured, and which question reading it answers. */
export interface Start {
  name: string
  inputs: Inputs
  question: string
}

interface Props {
  tool: Tool
  tag?: string
  start?: Start
  /** Keeps the answer on the job's tape; there is none to keep it on without a job. */
  onKeep?: (kept: Kept) => void
  /** The question that was on the bench when it was begun. */
  question?: string
  /** The mains as it stands on the bench: what was read with it otherwise is not kept. */
  power?: string
}

/** What stands in the form, kept in this browser until it stands on the tape, and what comes of it. */
function useForm(tool: Tool, tag: string | undefined, start: Props['start']) {
  const first = { ...starting(tool.fields), ...start?.inputs }
  const [given, setGiven, clear] = useKept<Inputs>(`measure:${useWho()}:${tag ?? ''}:${tool.id}:${start?.name ?? ''}`, first)
  const inputs = ready(tool.fields, given)
  const answered = useTold(tool.id, inputs, tag)
  useDropOnTape(tool.id, start?.name ?? '', tag, inputs, clear)
  const put = (part: Inputs) => setGiven({ ...given, ...part })
  return { given, inputs, put, clear, ...answered, ...sorted(answered.faults, inputs) }
}

/** What was typed last time goes once the tape has it, and no sooner: a refusal, a lost network or a sign-out takes no reading away. */
function useDropOnTape(tool: string, about: string, tag: string | undefined, inputs: Inputs, clear: () => void): void {
  const [atFirst] = useState(() => inOrder(inputs))
  const onTape = useMeasured(tag)
  const isThere = (onTape.data ?? []).some((m) => !m.is_struck && m.tool === tool && m.about === about && inOrder(m.inputs as Inputs) === atFirst)
  useEffect(() => {
    if (isThere) clear()
  }, [clear, isThere])
}

/** A calculator: what it asks on the left, what comes of it beside it, as it is typed. */
export function Calculator({ tool, tag, start, onKeep, question = '', power = '' }: Props) {
  const isSaid = (field: ToolField) => !field.each_time && start?.inputs[field.id] !== undefined
  const { given, inputs, put, clear, told, faults, problem, isWorking, wrong, missing } = useForm(tool, tag, start)
  const keep = (answers: string, headline: string) => onKeep?.({ tool: tool.id, inputs, about: start?.name ?? '', question: answers, headline })
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
      <div className="grid content-start gap-3.5 sm:grid-cols-2">
        <Fields tool={tool} isSaid={isSaid} given={given} wrong={wrong} next={(told?.next_rows ?? {}) as Record<string, Inputs>} isWorking={isWorking} onPut={put} />
        <div className="sm:col-span-2">
          <Button kind="quiet" onClick={clear}>
            Begin again
          </Button>
        </div>
      </div>
      <div className="space-y-3 lg:sticky lg:top-0 lg:self-start" aria-busy={isWorking}>
        {problem && (
          <Notice tone="danger" title="No answer" role="alert">
            {problem} What was typed stays.
          </Notice>
        )}
        {missing.length > 0 && <Notice title="Still to say">{missing.join(', ')}.</Notice>}
        {told && (
          <ToldCard told={told}>
            {onKeep && <Keep key={told.speaks.map((s) => s.question).join()} told={told} question={question} usual={start?.question ?? ''} isBlocked={blocked(told, power)} isWorking={isWorking} onKeep={keep} />}
          </ToldCard>
        )}
        <Before tool={tool} tag={tag} name={start?.name} inputs={inputs} told={told} />
        {!told && !problem && faults.length === 0 && <Waiting what="Reckoning…" />}
      </div>
    </div>
  )
}

/** How sure the meter is, as the form asks for it; what nobody knows is left for typing. */
const sureness = (held: Held, unit: string): Inputs => ({
  ...(held.pct !== null && { pct: String(held.pct), digits: String(held.digits) }),
  ...(held.resolution && { resolution: `${held.resolution} ${unit}` }),
  ...(held.leads_ohm !== null && { leads: `${held.leads_ohm} Ω` }),
})

/** Two of them stand beside each other. */
const NARROW = ['quantity', 'number', 'flag']

interface FieldsProps {
  tool: Tool
  /** What the sheet has said already stands folded, below what is still to say. */
  isSaid: (field: ToolField) => boolean
  given: Inputs
  wrong: Record<string, string>
  next: Record<string, Inputs>
  isWorking: boolean
  onPut: (part: Inputs) => void
}

function Fields({ tool, isSaid, given, wrong, next, isWorking, onPut }: FieldsProps) {
  const isAsked = tool.fields.some((f) => f.id === 'pct') // how sure the meter is
  const one = (field: ToolField) => (
    <div key={field.id} className={NARROW.includes(field.kind) ? '' : 'sm:col-span-2'}>
      {field.kind === 'rows' ? (
        <RowsField field={field} value={given[field.id]} all={given} wrong={wrong} next={next[field.id]} isWorking={isWorking} onChange={(rows) => onPut({ [field.id]: rows })} />
      ) : (
        <FieldInput field={field} value={given[field.id]} all={given} error={errorOf(wrong, field.id)} onChange={(value) => onPut({ [field.id]: value })} onSure={isAsked ? (held) => onPut({ [field.id]: held.values, ...sureness(held, unitOf(field, given)) }) : undefined} />
      )}
    </div>
  )
  const said = tool.fields.filter(isSaid)
  return (
    <>
      {tool.fields.filter((f) => !isSaid(f)).map(one)}
      {said.length > 0 && (
        <details className="rounded-lg border border-line px-3 sm:col-span-2" open={said.some((f) => errorOf(wrong, f.id) !== undefined)}>
          <summary className="flex min-h-11 items-center font-semibold">The sheet says: {said.map((f) => wordOf(f, given[f.id])).join(', ')}</summary>
          <div className="grid gap-3.5 pb-3 sm:grid-cols-2">{said.map(one)}</div>
        </details>
      )}
    </>
  )
}

const wordOf = (field: ToolField, value: Inputs[string]): string => {
  const chosen = field.choices.find((c) => c.id === value)?.name
  return chosen ? chosen.toLowerCase() : typeof value === 'boolean' ? `${field.name}: ${value ? 'yes' : 'no'}` : `${field.name.toLowerCase()} ${String(value)}`
}

/** The same points before, of what the sheet names. */
function Before({ tool, tag, name, inputs, told }: { tool: Tool; tag: string | undefined; name: string | undefined; inputs: Inputs; told: Told | null }) {
  if (!tag || !name || tool.id !== 'reading') return null
  return <RunChart tag={tag} about={name} inputs={inputs} limit={told?.picture ?? {}} />
}

/** Why it cannot be kept as the mains stands; empty if it can. Without a bench nothing stands. */
const blocked = ({ mains }: Told, power: string): string =>
  power === '' || mains === 'any' || mains === power ? '' : `It is read with the mains ${mains}, and on the bench it is ${power}. Set it first.`

interface KeepProps {
  told: Told
  /** The question on the bench, and the one that reading this usually answers. */
  question: string
  usual: string
  isBlocked: string
  isWorking: boolean
  onKeep: (answers: string, headline: string) => void
}

/** Onto the tape: as an answer to one of the drive's questions, or only kept. */
function Keep({ told, question, usual, isBlocked, isWorking, onKeep }: KeepProps) {
  const spoken = told.speaks.map((s) => s.question)
  const asked = [question, usual, spoken.length === 1 ? spoken[0] : ''].find((q) => q && spoken.includes(q)) ?? ''
  const [answers, setAnswers] = useState(asked)
  return (
    <div className="flex flex-wrap items-end gap-3 border-b border-line pb-3">
      {told.speaks.length > 0 && (
        <div className="min-w-60 flex-1">
          <Select label="It answers" empty="No question: it is kept, and weighs nothing" choices={told.speaks.map((s) => ({ id: s.question, label: s.ask }))} value={answers} onChange={setAnswers} />
        </div>
      )}
      {isBlocked && (
        <div className="w-full">
          <Notice tone="brass">{isBlocked}</Notice>
        </div>
      )}
      <Button kind="act" className="min-h-14! text-[1.2rem]" disabled={isWorking || isBlocked !== ''} onClick={() => onKeep(answers, told.headline)}>
        Keep it on the tape
      </Button>
    </div>
  )
}

const errorOf = (wrong: Record<string, string>, id: string): string | undefined => Object.entries(wrong).find(([place]) => place === `/${id}` || place.startsWith(`/${id}/`))?.[1]

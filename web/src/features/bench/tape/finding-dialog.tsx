import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import { useWho } from '@/api/session'
import type { Question } from '@/api/types'
import { useKept } from '@/lib/kept'
import { Button } from '@/ui/button'
import { Dialog } from '@/ui/dialog'
import { Choice, TextArea, TextField } from '@/ui/field'
import { Notice, Waiting } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { HandsOut, useHandsOut } from '../frame/holds'
import { isOff, MAINS_IS } from '../frame/mains'

const SOURCES = [
  { id: 'bench', label: 'Seen at the bench' },
  { id: 'remembered', label: 'Remembered' },
  { id: 'owner', label: 'Owner says' },
] as const
type Source = (typeof SOURCES)[number]['id']

/** Any finding that was not asked for: pick the question, give the answer, say whose it is. Or a remark in words. */
export function FindingDialog({ onlyReadings, onClose }: { onlyReadings: boolean; onClose: () => void }) {
  const { job, mayWork } = useBench()
  const questions = useQuery({
    queryKey: ['questions', job.drive.variant, job.sheet_version],
    queryFn: () => dataOf(client.GET('/api/jobs/{tag}/questions', { params: { path: { tag: job.tag } } })),
    staleTime: Infinity,
  })
  const [words, setWords] = useState('')
  const [picked, setPicked] = useState<Question | null>(null)
  const fitting = (questions.data ?? []).filter((q) => (!onlyReadings || q.kind === 'reading') && `${q.ask} ${q.outcomes.map((o) => o.label).join(' ')}`.toLowerCase().includes(words.toLowerCase()))
  return (
    <Dialog title={onlyReadings ? 'Log a reading' : 'Log a finding'} open onClose={onClose}>
      {picked ? (
        <GiveAnswer question={picked} onDone={onClose} onBack={() => setPicked(null)} />
      ) : (
        <>
          {mayWork && (
            <>
              <TextField label="What was looked at?" placeholder="fuse, lens, rattle…" value={words} onChange={(e) => setWords(e.target.value)} autoFocus />
              {questions.isPending && <Waiting what="Fetching the questions…" />}
              <ul className="my-3 max-h-[34vh] overflow-y-auto rounded-lg border border-line" tabIndex={-1}>
                {fitting.map((q) => (
                  <li key={q.id} className="border-b border-line last:border-0">
                    <button type="button" className="min-h-11 w-full px-3 py-1.5 text-left hover:bg-mat" onClick={() => setPicked(q)}>
                      {q.ask}
                    </button>
                  </li>
                ))}
                {questions.data && fitting.length === 0 && <li className="p-3 text-quiet">No question fits. Write it as a remark below.</li>}
              </ul>
            </>
          )}
          {!onlyReadings && <Remark onDone={onClose} />}
        </>
      )}
    </Dialog>
  )
}

function GiveAnswer({ question, onDone, onBack }: { question: Question; onDone: () => void; onBack: () => void }) {
  const { job, send, isBusy } = useBench()
  const [source, setSource] = useState<Source>('bench')
  const [setting, setSetting] = useState<Setting>({})
  const isHere = source === 'bench' && setting.on === undefined
  const isUnplugged = isHere && isOff(question, job)
  const hands = useHandsOut(isHere && !isUnplugged && question.mains === 'out' && question.depth > 0)
  const isBlocked = isUnplugged || hands !== undefined
  const isUnnamed = setting.on !== undefined && !setting.on.trim()
  const give = (outcome: string, label: string) => {
    send({ do: 'answer', question: question.id, outcome, source, setting: { mains: '', cover: '', disc_side: setting.disc_side ?? '', board: setting.board ?? '', console: setting.console ?? '', on: setting.on?.trim() ?? '' } }, `${question.ask} ${label}`)
    onDone()
  }
  return (
    <div className="space-y-4">
      <div>
        <h3 className="text-[1.1rem] font-bold">{question.ask}</h3>
        <p className="text-quiet">{question.how}</p>
      </div>
      <Choice label="Whose is it?" choices={SOURCES} value={source} onChange={(id) => setSource(id as Source)} />
      <SeenWith question={question} value={setting} onChange={setSetting} />
      {hands && <HandsOut hold={hands} inDialog />}
      {isUnplugged && (
        <Notice tone="brass">
          This look needs the mains {question.mains}; it is {MAINS_IS[job.power]}. Close this, set the mains state, and log it then.
        </Notice>
      )}
      <div className="flex flex-wrap gap-2">
        {question.outcomes.map((o) => (
          <Button key={o.id} kind="answer" disabled={isBusy || isBlocked || isUnnamed} onClick={() => give(o.id, o.label)}>
            {o.label}
          </Button>
        ))}
        <Button kind="answer" disabled={isBusy} onClick={() => give('cant_tell', "Can't tell")}>
          Can&apos;t tell
        </Button>
      </div>
      <Button kind="quiet" onClick={onBack}>
        Another question
      </Button>
    </div>
  )
}

interface Setting {
  disc_side?: 'wrong' | undefined
  board?: 'other' | undefined
  console?: 'other' | undefined
  on?: string | undefined
}

/** What it is about, and the state that makes a sight worthless: such a one is left out and says so. */
function SeenWith({ question, value, onChange }: { question: Question; value: Setting; onChange: (setting: Setting) => void }) {
  const { job } = useBench()
  if (question.kind === 'intake') return null
  const isPaired = job.drive.pairing === 'board' || job.drive.pairing === 'chip'
  const donor = { label: 'It was a donor by itself, not this unit', on: value.on !== undefined, flip: () => onChange(value.on === undefined ? { on: '' } : {}) }
  const isRun = question.mains === 'live' && value.on === undefined
  const boxes = [
    donor,
    ...(isRun ? [{ label: 'This drive was on another console', on: value.console === 'other', flip: () => onChange({ ...value, console: value.console ? undefined : 'other' }) }] : []),
    ...(isRun ? [{ label: 'The disc lay the wrong way round', on: value.disc_side === 'wrong', flip: () => onChange(value.disc_side ? { ...value, disc_side: undefined } : { ...value, disc_side: 'wrong' }) }] : []),
    ...(isPaired && isRun ? [{ label: 'Another board was fitted', on: value.board === 'other', flip: () => onChange(value.board ? { ...value, board: undefined } : { ...value, board: 'other' }) }] : []),
  ]
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">Seen with:</legend>
      {boxes.map((b) => (
        <label key={b.label} className="mr-5 inline-flex min-h-11 cursor-pointer items-center gap-2">
          <input type="checkbox" className="size-5 accent-[var(--ink)]" checked={b.on} onChange={b.flip} />
          {b.label}
        </label>
      ))}
      {value.on !== undefined && <TextField label="The donor’s tag" hint="It says nothing of this unit until a piece of that donor is in it." value={value.on} maxLength={60} onChange={(e) => onChange({ on: e.target.value })} />}
    </fieldset>
  )
}

/** Half a remark survives Escape, a tap beside the dialog and a reload: it is kept in this browser until it is logged. */
function Remark({ onDone }: { onDone: () => void }) {
  const { job, send, isBusy } = useBench()
  const [text, setText, clear] = useKept(`remark:${useWho()}:${job.tag}`, '')
  return (
    <form
      className="space-y-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (!text.trim()) return
        send({ do: 'remark', text: text.trim() }, text.trim())
        clear()
        onDone()
      }}
    >
      <TextArea label="Or a remark" hint="For people: it weighs nothing." value={text} maxLength={2000} onChange={(e) => setText(e.target.value)} />
      <Button type="submit" disabled={isBusy || !text.trim()}>
        Log the remark
      </Button>
    </form>
  )
}

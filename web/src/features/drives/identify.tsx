import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { Feature, KeyReading } from '@/api/types'
import { useKeys, type Keys } from '@/lib/use-keys'
import { percent } from '@/lib/words'
import { Button } from '@/ui/button'
import { Notice, Waiting } from '@/ui/panel'
import { Drawing } from './key-drawings'

const WHERE = { outside: 'From the outside', cover_off: 'Cover off, mains out', drive_open: 'Drive open, mains out, strap on' } as const
const CANT_SEE = 'cant_see'
/** A drive less likely than this is not offered to be taken yet. */
const WORTH_TAKING = 0.15
type Answers = Record<string, string>

/** Which drive is this? The most telling look first, answers in any order; a slip of the eye lowers the right one, and never rules it out. */
export function Identify({ start = {}, onPick }: { start?: Answers; onPick?: (sheetId: number, seen: Answers) => void }) {
  const [answers, setAnswers] = useState<Answers>(start)
  const [asked, setAsked] = useState('')
  const key = useQuery({
    queryKey: ['key', answers],
    queryFn: () => dataOf(client.POST('/api/key', { body: { answers } })),
    placeholderData: (before) => before,
    staleTime: 300_000,
  })
  const found = key.data
  const current = found?.features.find((f) => f.id === (asked || found.next_feature))
  const answer = (id: string, value: string) => {
    setAsked('')
    setAnswers({ ...answers, [id]: value })
  }
  const take = (id: string) => setAnswers(Object.fromEntries(Object.entries(answers).filter(([name]) => name !== id)))
  const last = Object.keys(answers).at(-1)
  const keys: Keys = { u: last ? () => take(last) : undefined }
  if (current) {
    current.values.forEach((v, n) => (keys[String(n + 1)] = () => answer(current.id, v.id)))
    keys['0'] = () => answer(current.id, CANT_SEE)
  }
  useKeys(keys, { inDialog: true })
  if (key.isError)
    return (
      <Notice tone="danger" title="The key could not be read" role="alert">
        {key.error.message}
      </Notice>
    )
  if (!found) return <Waiting what="Fetching the key…" />
  return (
    <div className="grid gap-5 md:grid-cols-[minmax(0,1fr)_19rem]">
      <div className="space-y-4">
        {current ? (
          <Look feature={current} onAnswer={(value) => answer(current.id, value)} />
        ) : (
          <p className="text-[1.1rem] font-bold">{found.is_settled ? 'That settles it, as far as an eye can.' : 'The eye can tell no more: these stay candidates.'}</p>
        )}
        <Given features={found.features} answers={answers} onTake={take} />
        <Other features={found.features.filter((f) => !(f.id in answers) && f !== current)} onAsk={setAsked} />
      </div>
      <Candidates found={found} onPick={onPick && ((id) => onPick(id, seenIn(answers)))} />
    </div>
  )
}

/** What was seen: what could not be seen is left out. */
const seenIn = (answers: Answers): Answers => Object.fromEntries(Object.entries(answers).filter(([, value]) => value !== CANT_SEE))

function Look({ feature, onAnswer }: { feature: Feature; onAnswer: (value: string) => void }) {
  return (
    <div>
      <p className="text-tiny text-quiet">{WHERE[feature.where]}</p>
      <h3 className="text-[1.15rem] font-bold">{feature.ask}</h3>
      <p className="mb-2.5 text-quiet">{feature.how}</p>
      <div className="flex flex-wrap gap-2" role="group" aria-label={`Answers: ${feature.ask}`}>
        {feature.values.map((v, n) => (
          <Button key={v.id} kind="answer" hotkey={String(n + 1)} onClick={() => onAnswer(v.id)}>
            <span className="flex items-center gap-2.5">
              <Drawing feature={feature.id} value={v.id} />
              {v.label}
            </span>
          </Button>
        ))}
        <Button kind="answer" hotkey="0" onClick={() => onAnswer(CANT_SEE)}>
          Can&apos;t see
        </Button>
      </div>
    </div>
  )
}

function Given({ features, answers, onTake }: { features: Feature[]; answers: Answers; onTake: (id: string) => void }) {
  const given = features.filter((f) => f.id in answers)
  if (given.length === 0) return null
  return (
    <ul aria-label="What was seen" className="divide-y divide-line border-y border-line">
      {given.map((f) => (
        <li key={f.id} className="flex flex-wrap items-center justify-between gap-2 py-0.5">
          <span>
            {f.ask} <b>{f.values.find((v) => v.id === answers[f.id])?.label ?? 'Can’t see'}</b>
          </span>
          <Button kind="quiet" onClick={() => onTake(f.id)} className="px-1.5!">
            Take back
          </Button>
        </li>
      ))}
    </ul>
  )
}

function Other({ features, onAsk }: { features: Feature[]; onAsk: (id: string) => void }) {
  if (features.length === 0) return null
  return (
    <details>
      <summary className="min-h-11 cursor-pointer text-quiet underline underline-offset-2">Something else can be seen</summary>
      <ul className="mt-1.5 flex flex-wrap gap-1.5">
        {features.map((f) => (
          <li key={f.id}>
            <Button onClick={() => onAsk(f.id)}>{f.ask}</Button>
          </li>
        ))}
      </ul>
    </details>
  )
}

function Candidates({ found, onPick }: { found: KeyReading; onPick: ((sheetId: number) => void) | undefined }) {
  return (
    <div>
      <h3 className="mb-1 font-bold">It can be</h3>
      <ol className="divide-y divide-line">
        {found.candidates.map((c) => (
          <li key={c.sheet_id} className="py-1.5">
            <span className="flex items-baseline justify-between gap-3">
              <span>
                <span className="figures font-semibold">{c.variant}</span> <span className="text-tiny text-quiet">{c.name}</span>
              </span>
              <b className="figures">{percent(c.p)}</b>
            </span>
            <span aria-hidden="true" className="mt-0.5 block h-1.5 rounded-full bg-mat">
              <span className="block h-1.5 rounded-full bg-ink" style={{ width: `${Math.max(1, c.p * 100)}%` }} />
            </span>
            {c.against.length > 0 && <span className="block text-tiny text-brass">speaks against it: {c.against.join(' ')}</span>}
            {onPick && c.p >= WORTH_TAKING && (
              <Button kind="quiet" className="px-0!" onClick={() => onPick(c.sheet_id)}>
                Take {c.variant}
              </Button>
            )}
          </li>
        ))}
      </ol>
      {!found.is_settled && found.differ.length > 0 && found.candidates[0]!.p >= WORTH_TAKING && (
        <p className="mt-2 text-tiny text-quiet">The first two differ in: {found.differ.slice(0, 3).join(' ')}</p>
      )}
    </div>
  )
}

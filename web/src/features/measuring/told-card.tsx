import type { ReactNode } from 'react'
import type { Told } from '@/api/types'
import { percent } from '@/lib/words'
import { Chip, type Tone } from '@/ui/panel'
import { Picture } from './pictures/picture'

const TONES: Record<string, Tone> = { allowed: 'clear', trial_only: 'brass', refused: 'danger' }

/** What a calculator answers: the one sentence that counts, its picture, then why, and every number in words. */
export function ToldCard({ told, children }: { told: Told; children?: ReactNode }) {
  return (
    <div className="space-y-3">
      <div role="status">
        <p className="max-w-[60ch] text-[1.35rem] leading-snug font-bold">{told.headline}</p>
        {told.verdict && (
          <Chip tone={TONES[told.verdict] ?? 'plain'} className="mt-1 text-[0.95rem]!">
            {told.verdict_said}
          </Chip>
        )}
        {told.may_power === false && (
          <Chip tone="danger" className="mt-1 ml-1.5 text-[0.95rem]!">
            no power
          </Chip>
        )}
      </div>
      <Picture picture={told.picture} />
      {children}
      {told.reasons.length > 0 && (
        <ul className="space-y-1">
          {told.reasons.map((r) => (
            <li key={r.text} className="flex gap-2">
              <Chip tone={TONES[r.verdict] ?? 'plain'}>{r.verdict === 'refused' ? 'refuses' : 'trial only'}</Chip>
              <span>{r.text}</span>
            </li>
          ))}
        </ul>
      )}
      {told.notes.length > 0 && (
        <ul className="list-disc space-y-0.5 pl-5">
          {told.notes.map((n) => (
            <li key={n}>{n}</li>
          ))}
        </ul>
      )}
      {told.numbers.length > 0 && (
        <dl className="grid grid-cols-[minmax(7rem,auto)_minmax(0,1fr)] gap-x-4 gap-y-1">
          {told.numbers.map((n) => (
            <div key={n.name + n.text} className="contents">
              <dt className="text-quiet">{n.name}</dt>
              <dd className={n.text.length > 34 ? '' : 'figures'}>{n.text}</dd>
            </div>
          ))}
        </dl>
      )}
      <Speaks told={told} />
      {told.cautions.map((c) => (
        <p key={c.id} className="rounded-lg border border-brass/45 bg-brass-soft px-3 py-1.5">
          {c.text}
        </p>
      ))}
    </div>
  )
}

function Speaks({ told }: { told: Told }) {
  if (told.speaks.length === 0) return null
  return (
    <details>
      <summary className="flex min-h-11 items-center font-semibold">What it says to this drive’s questions</summary>
      <ul className="list-disc space-y-1 pl-5">
        {told.speaks.map((s) => (
          <li key={s.question}>
            {s.ask} {s.answers.map((a) => `${a.label} ${percent(a.share)}`).join(', ')}
          </li>
        ))}
      </ul>
    </details>
  )
}

import type { ReactNode } from 'react'

/** A sheet of paper on the mat. */
export function Panel({ title, aside, children, className = '', level = 2 }: { title?: ReactNode; aside?: ReactNode; children: ReactNode; className?: string; level?: 2 | 3 }) {
  const Heading = level === 2 ? 'h2' : 'h3'
  return (
    <section className={`rounded-xl border border-line bg-paper p-4 ${className}`}>
      {(title || aside) && (
        <div className="mb-2.5 flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
          {title && <Heading className="text-[1.15rem] font-bold">{title}</Heading>}
          {aside && <div className="text-quiet">{aside}</div>}
        </div>
      )}
      {children}
    </section>
  )
}

const tones = {
  plain: 'bg-mat text-ink border-line',
  ember: 'bg-ember-soft text-ember-deep border-transparent',
  clear: 'bg-verdigris-soft text-verdigris border-transparent',
  brass: 'bg-brass-soft text-brass border-brass/45',
  danger: 'bg-danger-soft text-danger border-danger/40',
}
export type Tone = keyof typeof tones

export function Chip({ tone = 'plain', children, className = '' }: { tone?: Tone; children: ReactNode; className?: string }) {
  return <span className={`inline-block rounded-md border px-1.5 py-px text-tiny ${tones[tone]} ${className}`}>{children}</span>
}

/** Something that must be read: brass to take care, danger to refuse, plain to tell. */
export function Notice({ tone = 'plain', title, children, role }: { tone?: Tone; title?: string; children?: ReactNode; role?: 'alert' | 'status' }) {
  return (
    <div role={role} className={`rounded-lg border px-3.5 py-2.5 ${tones[tone]}`}>
      {title && <p className="font-bold">{title}</p>}
      {children && <div className={tone === 'plain' ? '' : 'text-ink'}>{children}</div>}
    </div>
  )
}

export function Waiting({ what }: { what: string }) {
  return (
    <div role="status" className="p-6 text-quiet">
      <span className="mr-2 inline-block size-3 animate-pulse rounded-full bg-brass motion-reduce:animate-none" aria-hidden="true" />
      {what}
    </div>
  )
}

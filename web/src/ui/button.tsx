import type { ButtonHTMLAttributes, ReactNode } from 'react'

type Kind = 'act' | 'plain' | 'quiet' | 'answer'

const looks: Record<Kind, string> = {
  act: 'bg-ink text-paper border-ink font-semibold hover:bg-ink/88',
  plain: 'bg-paper text-ink border-ink/55 hover:border-ink hover:bg-mat/60',
  quiet: 'bg-transparent text-ink border-transparent underline underline-offset-3 hover:bg-mat',
  answer: 'bg-paper text-ink border-ink border-[1.5px] font-semibold hover:bg-mat text-[1.25rem] min-h-14!',
}

export interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  kind?: Kind
  hotkey?: string | undefined
  children: ReactNode
}

/** A thing to do (`act`, `plain`, `quiet`), or a thing to report (`answer`): the two never look alike. */
export function Button({ kind = 'plain', hotkey, children, className = '', ...rest }: ButtonProps) {
  const label = hotkey ? { 'aria-keyshortcuts': hotkey } : {}
  return (
    <button
      type="button"
      className={`inline-flex min-h-11 items-center gap-2.5 rounded-lg border px-3.5 py-1.5 text-left leading-snug disabled:opacity-55 ${looks[kind]} ${className}`}
      {...label}
      {...rest}
    >
      {kind === 'answer' && hotkey && <KeyCap>{hotkey}</KeyCap>}
      <span>{children}</span>
      {kind !== 'answer' && hotkey && <KeyCap>{hotkey}</KeyCap>}
    </button>
  )
}

export function KeyCap({ children }: { children: ReactNode }) {
  return (
    <kbd aria-hidden="true" className="figures inline-flex h-[1.35rem] min-w-[1.35rem] shrink-0 items-center justify-center rounded border border-current/45 px-1 text-tiny opacity-85">
      {children}
    </kbd>
  )
}

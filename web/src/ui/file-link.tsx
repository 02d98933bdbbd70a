import type { ReactNode } from 'react'

interface Props {
  href: string
  kind?: 'act' | 'plain'
  /** Shown in a tab of its own; without it, saved. */
  isShown?: boolean
  children: ReactNode
}

const looks = { act: 'border-ink bg-ink text-paper font-semibold', plain: 'border-ink/55 hover:border-ink' }

/** A paper or a file of the server's, as a button looks. */
export function FileLink({ href, kind = 'plain', isShown = false, children }: Props) {
  return (
    <a href={href} className={`inline-flex min-h-11 items-center rounded-lg border px-3.5 ${looks[kind]}`} {...(isShown ? { target: '_blank', rel: 'noreferrer' } : { download: true })}>
      {children}
    </a>
  )
}

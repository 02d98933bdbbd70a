import { Dialog as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

interface DialogProps {
  title: string
  open: boolean
  onClose: () => void
  children: ReactNode
  note?: string
  /** For what has two columns: a form and what comes of it. */
  isWide?: boolean
}

/** Whoever opens a form wants to fill it in, not to close it. */
const startAtTheFirstField = (event: Event) => {
  const dialog = event.target as HTMLElement | null
  const first = dialog?.querySelector<HTMLElement>('[data-start]') ?? dialog?.querySelector<HTMLElement>('form input:not([type=checkbox], .sr-only), form select, form textarea')
  if (!first) return
  event.preventDefault()
  first.focus()
}

export function Dialog({ title, open, onClose, children, note, isWide = false }: DialogProps) {
  return (
    <Radix.Root open={open} onOpenChange={(isOpen) => !isOpen && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-[#0d1514]/55" />
        <Radix.Content
          {...(note ? {} : { 'aria-describedby': undefined })}
          onOpenAutoFocus={startAtTheFirstField}
          className={`fixed left-1/2 z-50 -translate-x-1/2 overflow-y-auto rounded-xl border border-ink bg-paper p-5 text-ink ${isWide ? 'top-[3vh] max-h-[94vh] w-[min(74rem,calc(100vw-1.5rem))]' : 'top-[8vh] max-h-[84vh] w-[min(44rem,calc(100vw-1.5rem))]'}`}
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <Radix.Title className="text-[1.25rem] font-bold">{title}</Radix.Title>
            <Radix.Close className="min-h-11 shrink-0 rounded-lg border border-ink/45 px-3">Close</Radix.Close>
          </div>
          {note && <Radix.Description className="mb-3 text-quiet">{note}</Radix.Description>}
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}

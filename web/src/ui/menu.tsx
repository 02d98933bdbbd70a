import { useState, type ReactNode } from 'react'
import { Dialog } from './dialog'

export interface MenuItem {
  says: string
  onPick: () => void
}

/** A button of the top bar with a few things to do behind it, each as large as a thumb. */
export function Menu({ label, title, trigger, items }: { label: string; title: string; trigger: ReactNode; items: readonly MenuItem[] }) {
  const [isOpen, setOpen] = useState(false)
  const pick = (item: MenuItem) => {
    setOpen(false)
    item.onPick()
  }
  return (
    <>
      <button
        type="button"
        aria-label={label}
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
        className="inline-flex min-h-11 min-w-11 items-center justify-center gap-2 rounded-lg border border-on-bar/35 px-2.5 text-left leading-tight hover:border-on-bar"
      >
        {trigger}
      </button>
      <Dialog title={title} open={isOpen} onClose={() => setOpen(false)}>
        <ul className="divide-y divide-line">
          {items.map((item) => (
            <li key={item.says}>
              <button type="button" className="min-h-12 w-full rounded px-2 text-left text-[1.1rem] hover:bg-mat" onClick={() => pick(item)}>
                {item.says}
              </button>
            </li>
          ))}
        </ul>
      </Dialog>
    </>
  )
}

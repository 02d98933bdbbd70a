import { Tabs as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

interface Tab {
  id: string
  name: string
  hotkey?: string
  content: ReactNode
}

/** A few views of the same work, one at a time; which one is open is the caller's to keep. */
export function Tabs({ label, tabs, value, onChange }: { label: string; tabs: readonly Tab[]; value: string; onChange: (id: string) => void }) {
  return (
    <Radix.Root value={value} onValueChange={onChange} activationMode="manual" className="rounded-xl border border-line bg-paper">
      <Radix.List aria-label={label} className="flex flex-wrap gap-1 border-b border-line px-3 pt-2">
        {tabs.map((t) => (
          <Radix.Trigger
            key={t.id}
            value={t.id}
            {...(t.hotkey ? { 'aria-keyshortcuts': t.hotkey } : {})}
            className="-mb-px inline-flex min-h-11 items-center gap-2 border-b-3 border-transparent px-3 text-quiet hover:text-ink data-[state=active]:border-ink data-[state=active]:font-bold data-[state=active]:text-ink"
          >
            {t.name}
            {t.hotkey && (
              <kbd aria-hidden="true" className="figures rounded border border-current/45 px-1 text-tiny font-normal">
                {t.hotkey}
              </kbd>
            )}
          </Radix.Trigger>
        ))}
      </Radix.List>
      {tabs.map((t) => (
        <Radix.Content key={t.id} value={t.id} className="p-4">
          {t.content}
        </Radix.Content>
      ))}
    </Radix.Root>
  )
}

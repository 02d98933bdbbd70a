import { Popover } from 'radix-ui'
import type { RefObject } from 'react'
import { entryOf } from '@/lib/glossary'

interface Props {
  word: string
  at: RefObject<HTMLButtonElement | null>
  onClose: () => void
}

/** What the glossary says of a word, beside it. */
export function Meaning({ word, at, onClose }: Props) {
  const entry = entryOf(word)
  return (
    <Popover.Root open onOpenChange={(open) => !open && onClose()}>
      <Popover.Anchor virtualRef={at as RefObject<HTMLButtonElement>} />
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          collisionPadding={12}
          onCloseAutoFocus={(event) => {
            event.preventDefault()
            at.current?.focus()
          }}
          className="z-50 max-w-88 rounded-lg border-[1.5px] border-ink bg-paper px-3.5 py-2.5 text-[1rem] text-ink shadow-lg"
        >
          <b>{entry?.words ?? word}</b>: {entry?.meaning}.
          <Popover.Arrow className="fill-ink" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}

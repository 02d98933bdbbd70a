import { Popover } from 'radix-ui'
import { entryOf } from '@/lib/glossary'

interface Props {
  /** As the glossary has it, alone or among others. */
  word: string
  /** What stands there, if it is not the word itself. */
  says?: string
}

/** A word that can be asked what it means, where it stands; as plain text where the glossary does not have it. */
export function Term({ word, says = word }: Props) {
  const entry = entryOf(word)
  if (!entry) return says
  return (
    <Popover.Root>
      <Popover.Trigger className="-my-2.5 inline-flex min-h-11 min-w-11 items-center rounded text-left text-inherit underline decoration-dotted decoration-from-font underline-offset-4" aria-label={`${says}: what is that?`}>
        {says}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content sideOffset={4} collisionPadding={12} className="z-50 max-w-88 rounded-lg border-[1.5px] border-ink bg-paper px-3.5 py-2.5 text-[1rem] text-ink shadow-lg">
          <b>{entry.words}</b>: {entry.meaning}.
          <Popover.Arrow className="fill-ink" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}

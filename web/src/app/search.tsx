import { useQuery } from '@tanstack/react-query'
import { useRef, useState, type Ref } from 'react'
import { useNavigate } from 'react-router'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import { useKeys } from '@/lib/use-keys'
import { TAG, useWedge } from '@/lib/wedge'
import { KeyCap } from '@/ui/button'
import { CameraDialog } from './camera'
import { FOUND_ID, FoundList, optionId } from './found-list'

const FIELD = { maxLength: 120, placeholder: 'Scan a tag or search', className: 'w-40 bg-transparent outline-none placeholder:text-on-bar/75', autoComplete: 'off' }
const LEAST = 2
const ask = (q: string) => dataOf(client.GET('/api/search', { params: { query: { q } } }))

/** Search and scan: a tag opens its thing, whatever it is; other words find jobs. */
export function Search() {
  const [words, setWords] = useState('')
  const [isCamera, setCamera] = useState(false)
  const [isOpen, setOpen] = useState(false)
  const [unknown, setUnknown] = useState('')
  const field = useRef<HTMLInputElement>(null)
  const navigate = useNavigate()
  useKeys({ '/': () => field.current?.focus() })
  const { things, isListed, best, at, step } = useFound(words)
  const clear = () => {
    setWords('')
    setUnknown('')
  }
  const leave = (path: string) => {
    clear()
    setCamera(false)
    setOpen(false)
    field.current?.blur()
    void navigate(path)
  }
  const openTag = async (tag: string) => {
    try {
      leave(await pathOf(tag))
    } catch (error) {
      setCamera(false)
      setUnknown(error instanceof Error ? error.message : String(error))
    }
  }
  useWedge((tag) => void openTag(tag))
  const openBest = async () => {
    const tag = words.trim().toUpperCase()
    if (TAG.test(tag)) return openTag(tag)
    const found = await best()
    if (found) leave(found.path)
  }
  const keys: Record<string, () => void> = { Escape: clear, ArrowDown: () => step(1), ArrowUp: () => step(-1) }
  return (
    <form
      role="search"
      className="flex gap-1.5 md:relative"
      onSubmit={(event) => {
        event.preventDefault()
        if (words.trim()) void openBest()
      }}
      onKeyDown={(event) => {
        if (keys[event.key]) event.preventDefault()
        keys[event.key]?.()
      }}
    >
      <OpenField isOpen={isOpen} onFlip={() => setOpen(!isOpen)} />
      <Field ref={field} isOpen={isOpen} words={words} at={isListed && things.length > 0 ? optionId(at) : undefined} isListed={isListed} onChange={setWords} />
      <CameraButton onOpen={() => setCamera(true)} />
      {isCamera && <CameraDialog onTag={(tag) => void openTag(tag)} onClose={() => setCamera(false)} />}
      {unknown && <UnknownTag says={unknown} onClose={() => setUnknown('')} />}
      {isListed && <FoundList things={things} at={at} onPick={(thing) => leave(thing.path)} />}
    </form>
  )
}

const pathOf = async (tag: string): Promise<string> => (await dataOf(client.GET('/api/tags/{tag}', { params: { path: { tag } } }))).path

/** What the words find, and what Enter opens: the one that is marked, or the first as soon as it is known. */
function useFound(words: string) {
  const [mark, setMark] = useState({ words, at: 0 })
  const at = mark.words === words ? mark.at : 0
  const isAsked = words.trim().length >= LEAST
  const found = useQuery({ queryKey: ['search', words], queryFn: () => ask(words), enabled: isAsked, placeholderData: (was) => was })
  const things = isAsked ? (found.data ?? []) : []
  const best = async () => (found.isPlaceholderData || !things[at] ? (await ask(words))[0] : things[at])
  const step = (by: number) => setMark({ words, at: Math.max(0, Math.min(at + by, things.length - 1)) })
  return { things, isListed: isAsked && found.data !== undefined, best, at, step }
}

interface FieldProps {
  ref: Ref<HTMLInputElement>
  words: string
  at: string | undefined
  isListed: boolean
  /** On a narrow screen it is shown on demand. */
  isOpen: boolean
  onChange: (typed: string) => void
}

function Field({ ref, words, at, isListed, isOpen, onChange }: FieldProps) {
  return (
    <label className={`min-h-11 items-center max-md:absolute max-md:inset-x-2.5 max-md:top-full max-md:z-30 max-md:bg-bar ${isOpen ? 'flex' : 'flex max-md:hidden'} rounded-lg border border-on-bar/35 px-3 focus-within:border-on-bar focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-[#f0935d]`}>
      <span className="sr-only">Scan a tag or search</span>
      <input
        ref={ref}
        value={words}
        onChange={(event) => onChange(event.target.value)}
        role="combobox"
        aria-expanded={isListed}
        aria-controls={FOUND_ID}
        aria-activedescendant={at}
        {...FIELD}
      />
      <KeyCap>/</KeyCap>
    </label>
  )
}

function UnknownTag({ says, onClose }: { says: string; onClose: () => void }) {
  return (
    <div role="alert" className="absolute top-full right-0 z-30 mt-1 w-80 rounded-lg border border-ink bg-paper p-3 text-ink">
      <p>{says}</p>
      <button type="button" className="mt-1 min-h-11 underline underline-offset-2" onClick={onClose}>
        Understood
      </button>
    </div>
  )
}

/** On a narrow screen the field has no room in the bar: it opens below it. */
function OpenField({ isOpen, onFlip }: { isOpen: boolean; onFlip: () => void }) {
  return (
    <button type="button" className="inline-flex size-11 items-center justify-center rounded-lg border border-on-bar/35 md:hidden" aria-expanded={isOpen} aria-label="Search" onClick={onFlip}>
      <svg viewBox="0 0 24 24" className="size-5" aria-hidden="true" fill="none" stroke="currentColor" strokeWidth="2">
        <circle cx="10.5" cy="10.5" r="6" />
        <path d="M15 15l5 5" />
      </svg>
    </button>
  )
}

function CameraButton({ onOpen }: { onOpen: () => void }) {
  return (
    <button type="button" className="inline-flex size-11 items-center justify-center rounded-lg border border-on-bar/35 hover:border-on-bar" aria-label="Scan with the camera" onClick={onOpen}>
      <svg viewBox="0 0 24 24" className="size-5" aria-hidden="true" fill="none" stroke="currentColor" strokeWidth="2">
        <path d="M3 8V4h4M17 4h4v4M21 16v4h-4M7 20H3v-4M8 8h3v3H8zM13 13h3v3h-3zM14 8h2M8 14v2" />
      </svg>
    </button>
  )
}

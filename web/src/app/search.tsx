import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { Found } from '@/api/types'
import { useKeys } from '@/lib/use-keys'
import { TAG, useWedge } from '@/lib/wedge'
import { KeyCap } from '@/ui/button'
import { CameraDialog } from './camera'

const FIELD = { maxLength: 120, placeholder: 'Scan a tag or search', className: 'w-40 bg-transparent outline-none placeholder:text-on-bar/75', autoComplete: 'off' }
const ask = (q: string) => dataOf(client.GET('/api/search', { params: { query: { q } } }))

/** Search and scan: a tag opens its thing, whatever it is; other words find jobs. */
export function Search() {
  const [words, setWords] = useState('')
  const [isCamera, setCamera] = useState(false)
  const [unknown, setUnknown] = useState('')
  const field = useRef<HTMLInputElement>(null)
  const navigate = useNavigate()
  useKeys({ '/': () => field.current?.focus() })
  const found = useQuery({ queryKey: ['search', words], queryFn: () => ask(words), enabled: words.trim().length > 1 })
  const leave = (path: string) => {
    setWords('')
    setUnknown('')
    setCamera(false)
    field.current?.blur()
    void navigate(path)
  }
  const openTag = async (tag: string) => {
    try {
      leave((await dataOf(client.GET('/api/tags/{tag}', { params: { path: { tag } } }))).path)
    } catch (error) {
      setCamera(false)
      setUnknown(error instanceof Error ? error.message : String(error))
    }
  }
  useWedge((tag) => void openTag(tag))
  const openBest = async () => {
    const tag = words.trim().toUpperCase()
    if (TAG.test(tag)) return openTag(tag)
    const best = (await ask(words))[0]
    if (best) leave(`/bench/${best.tag}`)
  }
  return (
    <form
      role="search"
      className="relative flex gap-1.5"
      onSubmit={(event) => {
        event.preventDefault()
        if (words.trim()) void openBest()
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return
        setWords('')
        setUnknown('')
      }}
    >
      <label className="flex min-h-10 items-center rounded-lg border border-on-bar/35 px-3">
        <span className="sr-only">Scan a tag or search</span>
        <input ref={field} value={words} onChange={(event) => setWords(event.target.value)} {...FIELD} />
        <KeyCap>/</KeyCap>
      </label>
      <CameraButton onOpen={() => setCamera(true)} />
      {isCamera && <CameraDialog onTag={(tag) => void openTag(tag)} onClose={() => setCamera(false)} />}
      {unknown && <UnknownTag says={unknown} onClose={() => setUnknown('')} />}
      {words.trim().length > 1 && found.data && <FoundList jobs={found.data} onPick={(tag) => leave(`/bench/${tag}`)} />}
    </form>
  )
}

function UnknownTag({ says, onClose }: { says: string; onClose: () => void }) {
  return (
    <div role="alert" className="absolute top-full right-0 z-30 mt-1 w-80 rounded-lg border border-ink bg-paper p-3 text-ink">
      <p>{says}</p>
      <button type="button" className="mt-1 min-h-9 underline underline-offset-2" onClick={onClose}>
        Understood
      </button>
    </div>
  )
}

function FoundList({ jobs, onPick }: { jobs: readonly Found[]; onPick: (tag: string) => void }) {
  return (
    <ul className="absolute top-full right-0 z-30 mt-1 w-80 rounded-lg border border-ink bg-paper p-1 text-ink" aria-label="Found">
      {jobs.map((job) => (
        <li key={job.tag}>
          <button type="button" className="w-full rounded p-2 text-left hover:bg-mat" onClick={() => onPick(job.tag)}>
            <span className="figures font-semibold">{job.tag}</span> {job.console}
            <span className="block text-tiny text-quiet">
              {job.owner_name} · {job.stage_name}
            </span>
          </button>
        </li>
      ))}
      {jobs.length === 0 && <li className="p-2 text-quiet">No job fits. A tag, as K-0107 or P-0012, opens its thing with Enter.</li>}
    </ul>
  )
}

function CameraButton({ onOpen }: { onOpen: () => void }) {
  return (
    <button type="button" className="inline-flex size-10 items-center justify-center rounded-lg border border-on-bar/35 hover:border-on-bar" aria-label="Scan with the camera" onClick={onOpen}>
      <svg viewBox="0 0 24 24" className="size-5" aria-hidden="true" fill="none" stroke="currentColor" strokeWidth="2">
        <path d="M3 8V4h4M17 4h4v4M21 16v4h-4M7 20H3v-4M8 8h3v3H8zM13 13h3v3h-3zM14 8h2M8 14v2" />
      </svg>
    </button>
  )
}

import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import { useKeys } from '@/lib/use-keys'
import { KeyCap } from '@/ui/button'

/** A wedge scanner types the tag and presses Enter: the best match opens. */
export function Search() {
  const [words, setWords] = useState('')
  const field = useRef<HTMLInputElement>(null)
  const navigate = useNavigate()
  useKeys({ '/': () => field.current?.focus() })
  const ask = (q: string) => dataOf(client.GET('/api/search', { params: { query: { q } } }))
  const found = useQuery({ queryKey: ['search', words], queryFn: () => ask(words), enabled: words.trim().length > 1 })
  const open = (tag: string) => {
    setWords('')
    field.current?.blur()
    void navigate(`/bench/${tag}`)
  }
  const openBest = async () => {
    const best = (await ask(words))[0]
    if (best) open(best.tag)
  }
  return (
    <form
      role="search"
      className="relative"
      onSubmit={(event) => {
        event.preventDefault()
        if (words.trim()) void openBest()
      }}
      onKeyDown={(event) => event.key === 'Escape' && setWords('')}
    >
      <label className="flex min-h-10 items-center rounded-lg border border-on-bar/35 px-3">
        <span className="sr-only">Scan a tag or search</span>
        <input
          ref={field}
          value={words}
          maxLength={120}
          onChange={(event) => setWords(event.target.value)}
          placeholder="Scan a tag or search"
          className="w-40 bg-transparent outline-none placeholder:text-on-bar/75"
          autoComplete="off"
        />
        <KeyCap>/</KeyCap>
      </label>
      {words.trim().length > 1 && found.data && (
        <ul className="absolute right-0 z-30 mt-1 w-80 rounded-lg border border-ink bg-paper p-1 text-ink" aria-label="Found">
          {found.data.map((job) => (
            <li key={job.tag}>
              <button type="button" className="w-full rounded p-2 text-left hover:bg-mat" onClick={() => open(job.tag)}>
                <span className="figures font-semibold">{job.tag}</span> {job.console}
                <span className="block text-tiny text-quiet">
                  {job.owner_name} · {job.stage_name}
                </span>
              </button>
            </li>
          ))}
          {found.data.length === 0 && <li className="p-2 text-quiet">No job fits. Tags look like K-0107.</li>}
        </ul>
      )}
    </form>
  )
}

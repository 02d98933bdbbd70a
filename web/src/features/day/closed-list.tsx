import { useInfiniteQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { client } from '@/api/client'
import { dataOf } from '@/api/problem'
import type { PastJob } from '@/api/types'
import { dayOf } from '@/lib/dates'
import { useSettled } from '@/lib/use-settled'
import { Button } from '@/ui/button'
import { TextField } from '@/ui/field'
import { Chip, Notice, Waiting } from '@/ui/panel'
import { Page } from '@/ui/sub-nav'
import { DayNav } from './day-nav'

const PAGE = 50

const pageOf = (q: string, after: string) => dataOf(client.GET('/api/closed', { params: { query: { q, after } } }))

/** Every job that was closed, newest first. */
export function ClosedList() {
  const [words, setWords] = useState('')
  const q = useSettled(words.trim())
  const found = useInfiniteQuery({
    queryKey: ['closed', q],
    queryFn: ({ pageParam }) => pageOf(q, pageParam),
    initialPageParam: '',
    getNextPageParam: (last) => (last.length < PAGE ? undefined : last.at(-1)?.tag),
  })
  const jobs = found.data?.pages.flat() ?? []
  return (
    <Page title="Closed jobs" lead="What was handed back, and what was taken in by mistake. A job that is closed is only read; what comes back opens a new one.">
      <DayNav />
      <div className="max-w-md">
        <TextField label="Only those with" hint="A tag, an owner, a phone number, a console, a word of the complaint." value={words} maxLength={120} onChange={(e) => setWords(e.target.value)} autoComplete="off" />
      </div>
      {found.isPending && <Waiting what="Fetching closed jobs…" />}
      {found.isError && (
        <Notice tone="danger" title="Could not fetch the closed jobs" role="alert">
          <p>{found.error.message}</p>
          <Button className="mt-2" onClick={() => void found.refetch()}>
            Try again
          </Button>
        </Notice>
      )}
      {found.data && jobs.length === 0 && <Notice title="None">{q ? 'No closed job holds all of these words.' : 'No job was closed yet.'}</Notice>}
      {jobs.length > 0 && (
        <ul className="overflow-hidden rounded-xl border border-line bg-paper">
          {jobs.map((job) => (
            <Past key={job.tag} job={job} />
          ))}
        </ul>
      )}
      {found.hasNextPage && (
        <Button onClick={() => void found.fetchNextPage()} disabled={found.isFetchingNextPage}>
          {found.isFetchingNextPage ? 'Fetching…' : 'Older ones'}
        </Button>
      )}
    </Page>
  )
}

function Past({ job }: { job: PastJob }) {
  return (
    <li className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line px-4 py-2.5 last:border-0">
      <Link to={`/bench/${job.tag}`} className="figures inline-flex min-h-11 w-20 items-center text-[1.15rem] font-bold underline underline-offset-3">
        {job.tag}
      </Link>
      <span className="min-w-0 flex-1 basis-64">
        <span className="block font-semibold">
          {job.console} <span className="font-normal text-quiet">· {job.owner_name}</span>
        </span>
        <span className="block truncate text-quiet">“{job.complaint}”</span>
      </span>
      <span className="basis-52">
        <span className="block font-semibold">{job.outcome}</span>
        <span className="text-quiet">{job.closed_at && dayOf(job.closed_at)}</span>
      </span>
      <span className="basis-44">
        {job.guarantee_until && <Chip tone={job.is_covered ? 'clear' : 'plain'}>{job.is_covered ? `guarantee until ${dayOf(job.guarantee_until)}` : `guarantee ended ${dayOf(job.guarantee_until)}`}</Chip>}
      </span>
      {!job.is_void && (
        <Link to={`/take-in?returns=${job.tag}`} className="inline-flex min-h-11 items-center rounded-lg border border-ink/55 px-3.5 hover:border-ink">
          It came back
        </Link>
      )}
    </li>
  )
}

import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { client } from '@/api/client'
import { useOnce } from '@/api/once'
import { dataOf } from '@/api/problem'
import { useSession } from '@/api/session'
import type { OwnerPage } from '@/api/types'
import { dayOf, timeOf } from '@/lib/dates'
import { Button } from '@/ui/button'
import { Chip, Notice, Panel, Waiting } from '@/ui/panel'
import { useBench } from '../frame/bench-context'

const path = (tag: string) => ({ params: { path: { tag } } })

/** The job's page for its owner; null where none was made yet. */
const useOwnerPage = (tag: string, version: number) =>
  useQuery({
    queryKey: ['owner-page', tag, version],
    queryFn: () => dataOf(client.GET('/api/jobs/{tag}/owner-page', path(tag))),
    placeholderData: (before) => before,
    refetchInterval: 15_000,
  })

/** A page on which the owner reads the proposal and answers without signing in: by a code to hold a phone at, a mail, or its address. */
export function OwnerPagePanel() {
  const { job } = useBench()
  const page = useOwnerPage(job.tag, job.version)
  const make = useOnce((body: { key: string }) => dataOf(client.POST('/api/jobs/{tag}/owner-page', { ...path(job.tag), body })), ['owner-page'])
  if (!job.agree.proposal?.repair) return null
  const isOpen = page.data?.standing === 'open'
  const problem = make.error ?? page.error
  return (
    <Panel title="The owner’s own page" aside="answers itself onto the tape; nothing is sent by us">
      {page.isPending && <Waiting what="Looking for a page…" />}
      {page.data && <Standing page={page.data} />}
      {page.data && isOpen && <Ways page={page.data} />}
      {page.isSuccess && (
        <Button kind={isOpen ? 'quiet' : 'plain'} disabled={make.isPending} onClick={() => make.mutate({})}>
          {make.isPending ? 'Making it…' : page.data ? 'Make a new one; the old one ends' : 'Make a page for the owner'}
        </Button>
      )}
      {problem && <Problem error={problem} />}
    </Panel>
  )
}

function Problem({ error }: { error: Error }) {
  return (
    <Notice tone="danger" title="No page" role="alert">
      {error.message}
    </Notice>
  )
}

const SAYS = { open: 'not answered yet', answered: 'answered', ended: 'ended', withdrawn: 'withdrawn: the proposal has changed' } as const

function Standing({ page }: { page: OwnerPage }) {
  return (
    <p className="mb-2 flex flex-wrap items-center gap-x-2">
      <Chip tone={page.standing === 'answered' ? 'clear' : page.standing === 'open' ? 'plain' : 'brass'}>{SAYS[page.standing]}</Chip>
      <span className="text-quiet">
        {page.seen_at ? `first opened ${dayOf(page.seen_at)} ${timeOf(page.seen_at)}` : 'nobody has opened it yet'}
        {page.standing === 'open' && `, ends ${dayOf(page.ends_at)}`}
      </span>
    </p>
  )
}

function Ways({ page }: { page: OwnerPage }) {
  const { job } = useBench()
  const session = useSession()
  const [isCopied, setCopied] = useState(false)
  const shop = session.data?.shop ?? ''
  const text = `Dear ${job.owner_name},\n\nwe have looked at your ${job.drive.console}. What we found, what it would cost, and your answer:\n${page.address}\n\n${shop}`
  const mail = `mailto:${job.owner_contact.includes('@') ? job.owner_contact : ''}?subject=${encodeURIComponent(`${job.tag}: your ${job.drive.console}`)}&body=${encodeURIComponent(text)}`
  const copy = () => void navigator.clipboard.writeText(page.address).then(() => setCopied(true))
  return (
    <div className="mb-2 flex flex-wrap items-start gap-4">
      <img src={page.code} alt={`Code of the page for ${job.owner_name}`} className="size-40 rounded-lg border border-line" />
      <div className="min-w-0 flex-1 space-y-2">
        <p className="figures text-tiny wrap-anywhere">{page.address}</p>
        <p className="text-quiet">Whoever has this address answers in the owner’s name: give it to nobody else.</p>
        <div className="flex flex-wrap gap-2">
          <Button onClick={copy}>{isCopied ? 'Copied' : 'Copy the address'}</Button>
          <a className="inline-flex min-h-11 items-center rounded-lg border border-ink/55 bg-paper px-3.5" href={mail}>
            Write a mail with it
          </a>
        </div>
      </div>
    </div>
  )
}

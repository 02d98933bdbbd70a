import { useDropFile, useSendFile, useWaitingFiles } from '@/api/send-file'
import type { WaitingFile } from '@/api/waiting-files'
import { timeOf } from '@/lib/dates'
import { Button } from '@/ui/button'
import { useBench } from './bench-context'
import type { Ask } from './asks'

/** Photos and recordings of this job that have not arrived: they are sent again from here, by whoever took them. */
export function WaitingFiles() {
  const { job } = useBench()
  const files = useWaitingFiles(job.tag)
  if (files.length === 0) return null
  return (
    <section aria-label="Not sent yet" role="status" className="rounded-xl border-2 border-brass bg-paper px-4 py-2.5">
      <h2 className="text-[1.1rem] font-bold text-brass">Not sent yet</h2>
      <ul className="divide-y divide-line">
        {files.map((f) => (
          <Waiting key={f.id} file={f} />
        ))}
      </ul>
    </section>
  )
}

function Waiting({ file }: { file: WaitingFile }) {
  const { send } = useBench()
  const drop = useDropFile()
  const sending = useSendFile(file.to, file.name, (hash, { ask, says }) => send({ ...ask, hash } as Ask, says))
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1.5 py-1.5">
      <span className="min-w-64 flex-1">
        {file.says}, taken at {timeOf(new Date(file.at).toISOString())}, waits in this browser.
        {sending.error && (
          <span role="alert" className="block text-danger">
            {sending.error.message}
          </span>
        )}
      </span>
      <span className="flex flex-wrap gap-2">
        <Button disabled={sending.isPending} onClick={() => sending.mutate(file)}>
          {sending.isPending ? 'Sending…' : 'Send it again'}
        </Button>
        <Button kind="quiet" disabled={sending.isPending} onClick={() => drop.mutate(file)}>
          Drop it
        </Button>
      </span>
    </li>
  )
}

import type { Job } from '@/api/types'
import { Button } from '@/ui/button'
import { FileLink } from '@/ui/file-link'
import { PrintLabels } from '@/ui/labels'

/** The unit has its tag: large enough to be written on tape by hand, with what is printed now. */
export function Taken({ job, onOpen, onAnother }: { job: Job; onOpen: () => void; onAnother: () => void }) {
  const left = job.missing.length
  return (
    <div className="mat-grid h-full overflow-y-auto p-4 lg:p-6">
      <section aria-label="Taken in" className="mx-auto max-w-2xl space-y-4 rounded-xl border-[1.5px] border-ink bg-paper p-6">
        <h1 className="text-[1.25rem] font-bold">Taken in. Its tag is</h1>
        <p className="figures text-[4.5rem] leading-none font-bold">{job.tag}</p>
        <p>
          {job.drive.maker} {job.drive.console}, for {job.owner_name}
        </p>
        <p className="flex flex-wrap gap-2">
          <PrintLabels tags={[job.tag]}>Print tag</PrintLabels>
          <FileLink href={`/api/jobs/${job.tag}/receipt.pdf`} isShown>
            Print receipt
          </FileLink>
        </p>
        {left > 0 && (
          <div>
            <p className="font-semibold">Before the bench may begin, it still needs:</p>
            <ul className="list-disc pl-5">
              {job.missing.map((m) => (
                <li key={m.code}>{m.text}</li>
              ))}
            </ul>
          </div>
        )}
        <p className="flex flex-wrap gap-2 border-t border-line pt-4">
          <Button kind="act" onClick={onOpen} autoFocus>
            {left > 0 ? 'Complete its notes' : 'Open it'}
          </Button>
          <Button onClick={onAnother}>Take in another</Button>
        </p>
      </section>
    </div>
  )
}

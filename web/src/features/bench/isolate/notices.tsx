import { useBench } from '../frame/bench-context'
import { Button } from '@/ui/button'
import { Notice } from '@/ui/panel'

const TITLES: Record<string, string> = {
  new_symptom: 'New since our own last step',
  swapped_twice: 'Swapped twice: look elsewhere',
  search_on: 'Search on',
  check_again: 'These findings disagree',
  two_faults: 'Two faults',
  think: 'Stop and think',
  nothing_wrong: 'Nothing wrong?',
  cheap_first: 'Cheap cause first',
  stop_loss: 'Count what is spent',
  not_offered: 'Not offered',
  probable: 'Enough looked',
}

/** What has to be said beside the next move, each with what it is about. */
export function Notices() {
  const { job, send, isBusy, mayWork } = useBench()
  const said = (line: number) => job.tape.find((l) => l.number === line)?.text ?? ''
  return (
    <>
      {job.diagnosis.notices.map((n) => (
        <Notice key={n.code + n.text} tone="brass" title={TITLES[n.code] ?? 'Left out'}>
          <p className="max-w-[80ch]">{n.text}</p>
          {n.code === 'check_again' && mayWork && n.lines[0] !== undefined && (
            <Button className="mt-1.5" disabled={isBusy} onClick={() => send({ do: 'strike', line: n.lines[0]!, why: 'disagrees with the rest' }, `Strike: ${said(n.lines[0]!)}`)}>
              Strike “{said(n.lines[0])}”
            </Button>
          )}
        </Notice>
      ))}
    </>
  )
}

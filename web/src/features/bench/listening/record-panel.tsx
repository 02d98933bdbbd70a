import type { ReactNode } from 'react'
import { useKeys } from '@/lib/use-keys'
import { Button } from '@/ui/button'
import { Notice } from '@/ui/panel'
import { LEAST_S, MOST_S, useRecorder } from './use-recorder'
import { loudness } from './wav'

const QUIET_S = 2
const KNOCK_S = 5
const WORDS = {
  silent: ['Nothing is heard', 'Is the microphone on, and the right one?'],
  quiet: ['Quiet', 'Come nearer: a hand’s breadth from the drive.'],
  good: ['Good', ''],
  loud: ['Too loud', 'A little further away, or it clips.'],
} as const

/** What to do now, by the clock of the recording. */
function say(seconds: number): string {
  if (seconds < QUIET_S) return 'Quiet for two seconds…'
  if (seconds < KNOCK_S) return 'Knock twice on the case, then let the drive do it.'
  return 'Now the drive: put the disc in, and let it run to its end.'
}

/** Records the drive: first quiet, then a knock, then what it does. */
export function RecordPanel({ onDone, aside }: { onDone: (recording: Blob) => void; aside: ReactNode }) {
  const recorder = useRecorder(onDone)
  const isOn = recorder.state === 'on'
  const mayStop = recorder.seconds >= LEAST_S
  useKeys({ s: () => (isOn ? mayStop && recorder.stop() : recorder.state === 'off' && void recorder.start()) }, { inDialog: true })
  const [word, hint] = WORDS[loudness(recorder.peak)]
  return (
    <div className="rounded-xl border border-line bg-mat/60 p-4">
      {isOn ? (
        <div className="grid gap-x-6 gap-y-3 lg:grid-cols-[minmax(0,1fr)_auto]">
          <div>
            <p role="status" className="text-[1.35rem] leading-tight font-bold">
              {say(recorder.seconds)}
            </p>
            <div className="mt-3 flex flex-wrap items-center gap-3">
              <div role="meter" aria-label="How loud" aria-valuemin={0} aria-valuemax={100} aria-valuenow={Math.round(100 * recorder.peak)} aria-valuetext={word} className="h-5 w-64 max-w-full overflow-hidden rounded border border-ink bg-paper">
                <div className={`h-full ${word === 'Too loud' ? 'bg-danger' : word === 'Good' ? 'bg-verdigris' : 'bg-brass'}`} style={{ width: `${100 * Math.sqrt(recorder.peak)}%` }} />
              </div>
              <b>{word}</b>
              <span className="text-quiet">{hint}</span>
            </div>
          </div>
          <div className="flex items-center gap-3">
            <span className="figures text-[1.35rem] font-bold">
              {recorder.seconds.toFixed(0)} s <span className="text-[1rem] font-normal text-quiet">of {MOST_S}</span>
            </span>
            <Button kind="act" hotkey="S" disabled={!mayStop} onClick={recorder.stop} className="min-h-14! text-[1.15rem]">
              Stop
            </Button>
            <Button kind="quiet" onClick={recorder.drop}>
              Drop it
            </Button>
          </div>
        </div>
      ) : (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <Button kind="act" hotkey="S" disabled={recorder.state === 'starts'} onClick={() => void recorder.start()} className="min-h-14! text-[1.15rem]">
            {recorder.state === 'starts' ? 'Microphone starts…' : 'Record the drive'}
          </Button>
          {aside}
          <p className="min-w-64 flex-1 text-quiet">Cover on, microphone a hand’s breadth away, no talking. Five to sixty seconds; fifteen are enough to call something silent.</p>
        </div>
      )}
      {recorder.problem && (
        <div className="mt-3">
          <Notice tone="brass" title="No recording" role="alert">
            {recorder.problem}
          </Notice>
        </div>
      )}
    </div>
  )
}

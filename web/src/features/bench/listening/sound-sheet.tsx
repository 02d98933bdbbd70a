import { useRef, useState } from 'react'
import { timeOf } from '@/lib/dates'
import { Button } from '@/ui/button'
import { Notice, Panel } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import { EventList } from './event-list'
import { Offers } from './offers'
import { SoundPicture } from './sound-picture'
import { soundAt, useSayReference, type Sound, type SoundEvent, type Sounds } from './sound-queries'

/** One recording: played again, seen, put right, and what it answers. */
export function SoundSheet({ sound, lanes, onBack }: { sound: Sound; lanes: Sounds['lanes']; onBack: () => void }) {
  const { send, mayWork, isBusy } = useBench()
  const player = useRef<HTMLAudioElement>(null)
  const [now, setNow] = useState(0)
  const [picked, setPicked] = useState(-1)
  const playFrom = (seconds: number) => {
    if (!player.current) return
    player.current.currentTime = Math.max(0, seconds - 0.3)
    void player.current.play().catch(() => undefined)
  }
  const play = (event: number) => {
    setPicked(event)
    const from = sound.events[event]?.start_s
    if (from !== undefined) playFrom(from)
  }
  const retell = (events: readonly SoundEvent[], says: string) =>
    send({ do: 'retell', sound: sound.line, events: events.map((e) => ({ kind: e.kind as 'load', start_s: e.start_s, end_s: e.end_s })) }, says)
  return (
    <div className="space-y-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <Button onClick={onBack}>All recordings</Button>
        <span className="text-quiet">
          Line {sound.line}, {timeOf(sound.at)}, {sound.by}
        </span>
        {sound.retold > 0 && mayWork && (
          <Button kind="quiet" disabled={isBusy} onClick={() => send({ do: 'strike', line: sound.retold, why: 'heard anew' }, 'What was put right')}>
            Undo what was put right last
          </Button>
        )}
      </div>
      <Quality sound={sound} />
      {sound.is_here && <audio ref={player} controls src={soundAt(sound.hash)} onTimeUpdate={(e) => setNow(e.currentTarget.currentTime)} className="h-11 w-full" aria-label="Play the recording" />}
      <SoundPicture sound={sound} events={sound.events} lanes={lanes} picked={picked} now={now} onPick={play} />
      <div className="grid items-start gap-3 lg:grid-cols-2">
        <Panel title="What it answers" level={3} aside="nothing counts before you take it">
          <Offers sound={sound} onPlay={playFrom} />
        </Panel>
        <Panel title="What is heard" level={3} aside={sound.retold > 0 ? 'put right by ear' : ''}>
          <EventList events={sound.events} lanes={lanes} picked={picked} onPlay={play} onRetell={mayWork ? retell : undefined} />
        </Panel>
      </div>
      <Beside sound={sound} />
    </div>
  )
}

function Quality({ sound }: { sound: Sound }) {
  if (!sound.is_here) return <Notice title="The recording itself is gone">Its time was over; what was heard stays here.</Notice>
  if (sound.grade === 'good') return null
  return (
    <Notice tone="brass" title={sound.grade === 'poor' ? 'A poor recording: what is not heard says nothing' : 'A fair recording'}>
      <ul>
        {sound.reasons.map((r) => (
          <li key={r}>{r}</li>
        ))}
      </ul>
    </Notice>
  )
}

/** What it was laid beside; and whether it is to be what later ones are laid beside. */
function Beside({ sound }: { sound: Sound }) {
  const { job, mayWork, send, isBusy } = useBench()
  const saying = useSayReference(job)
  return (
    <Panel title="Beside others" level={3}>
      {sound.compared.length === 0 && <p className="text-quiet">There is nothing to lay it beside yet: a second recording of this unit, or a healthy one of its model.</p>}
      {sound.compared.map((c) => (
        <div key={c.what} className="mb-2">
          <p className="font-semibold">{c.what[0]?.toUpperCase() + c.what.slice(1)}</p>
          {c.differences.length === 0 && <p>No difference that can be told.</p>}
          <ul>
            {c.differences.map((d) => (
              <li key={d.text} className={d.is_worse ? 'text-ember-deep' : 'text-verdigris'}>
                {d.is_worse ? 'Worse: ' : 'Better: '}
                <span className="text-ink">{d.text}</span>
              </li>
            ))}
          </ul>
        </div>
      ))}
      {saying.error && (
        <Notice tone="danger" title="Not written" role="alert">
          {saying.error.message}
        </Notice>
      )}
      {mayWork && (
        <div className="mt-2 flex flex-wrap gap-2">
          <Button disabled={saying.isPending || !sound.is_here} onClick={() => saying.mutate({ line: sound.line, is_reference: !sound.is_reference })}>
            {sound.is_reference ? 'No healthy reference any more' : 'This unit is healthy: keep it as a reference of its model'}
          </Button>
          <Button kind="quiet" disabled={isBusy} onClick={() => send({ do: 'strike', line: sound.line, why: 'not of this job' }, 'A recording off this job')}>
            Off this job
          </Button>
        </div>
      )}
    </Panel>
  )
}

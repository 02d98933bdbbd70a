import { useCallback, useState } from 'react'
import { Button } from '@/ui/button'
import { Choice, TextField } from '@/ui/field'
import { Notice } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import type { Ask, AskOf } from '../frame/asks'
import { useSendSound, type Sound } from './sound-queries'

interface Props {
  recording: Blob
  did: readonly { id: string; name: string }[]
  /** The recording before: the microphone mostly stands where it stood. */
  before: Sound | undefined
  onKept: () => void
  onDrop: () => void
}

type Did = NonNullable<AskOf<'keep_sound'>['did']>

/** A new recording: replay it, say what was done, keep it with the job. What could not be sent waits on the bench, and can be sent again. */
export function KeepSound({ recording, did, before, onKept, onDrop }: Props) {
  const { job, send } = useBench()
  const [what, setWhat] = useState<string>(before?.did ?? 'insert')
  const [cover, setCover] = useState('on')
  const [disc, setDisc] = useState(before?.disc ?? '')
  const [microphone, setMicrophone] = useState(before?.microphone ?? '')
  const [knocked, setKnocked] = useState(false)
  const player = useHeld(recording)
  const sending = useSendSound((hash, { ask, says }) => {
    send({ ...ask, hash } as Ask, says)
    onKept()
  })
  const ask = { do: 'keep_sound', did: what as Did, cover, disc: disc.trim(), microphone: microphone.trim(), knocked }
  return (
    <form
      className="space-y-4"
      onSubmit={(e) => {
        e.preventDefault()
        if (!sending.isPending) sending.mutate({ file: recording, tag: job.tag, ask, says: 'A recording' })
      }}
    >
      <audio controls ref={player} className="h-11 w-full" aria-label="Play it again" />
      <Choice label="What was done?" choices={did.map((d) => ({ id: d.id, label: d.name }))} value={what} onChange={setWhat} />
      <Choice
        label="The cover was"
        choices={[
          { id: 'on', label: 'On' },
          { id: 'off', label: 'Off' },
        ]}
        value={cover}
        onChange={setCover}
      />
      <label className="flex min-h-11 items-center gap-2.5">
        <input type="checkbox" className="size-6" checked={knocked} onChange={(e) => setKnocked(e.target.checked)} />
        I knocked twice on the case first: the recording shows that it hears
      </label>
      <div className="grid gap-3 md:grid-cols-2">
        <TextField label="Which disc?" hint="The same one, if two recordings are to be laid beside each other." maxLength={120} value={disc} onChange={(e) => setDisc(e.target.value)} />
        <TextField label="Where was the microphone?" hint="From the same place more can be told." maxLength={120} value={microphone} onChange={(e) => setMicrophone(e.target.value)} />
      </div>
      {sending.error && (
        <Notice tone="danger" title="The recording is not kept" role="alert">
          {sending.error.message}
        </Notice>
      )}
      <div className="flex flex-wrap gap-2">
        <Button kind="act" type="submit" disabled={sending.isPending}>
          {sending.isPending ? 'Sending, and listening…' : sending.error ? 'Send it again' : 'Keep it, and listen'}
        </Button>
        <Button kind="quiet" disabled={sending.isPending} onClick={onDrop}>
          Drop it
        </Button>
      </div>
    </form>
  )
}

/** Gives a player what this page holds, as long as it plays it. */
const useHeld = (blob: Blob) =>
  useCallback(
    (player: HTMLAudioElement) => {
      const address = URL.createObjectURL(blob)
      player.src = address
      return () => URL.revokeObjectURL(address)
    },
    [blob],
  )

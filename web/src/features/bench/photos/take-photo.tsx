import { useState } from 'react'
import { useMay } from '@/api/session'
import { Button } from '@/ui/button'
import { FileButton } from '@/ui/file-button'
import { Notice } from '@/ui/panel'
import { useBench } from '../frame/bench-context'
import type { Ask } from '../frame/asks'
import { Camera } from './camera'
import { MOST_MEGABYTES, useSendPhoto } from './photo-queries'

interface Props {
  /** A step of the opening order, or '' for anything. */
  of: string
  moment: 'before' | 'now' | 'free'
  /** What it shows, for the tape. */
  says?: string
  label: string
}

/** Takes a photo by camera or file and keeps it with the job. What could not be sent waits on the bench, and can be sent again. */
export function TakePhoto({ of, moment, says = '', label }: Props) {
  const { job, send } = useBench()
  const mayNote = useMay('note')
  const [isOn, setOn] = useState(false)
  const sending = useSendPhoto((hash, { ask, says: told }) => send({ ...ask, hash } as Ask, told))
  const [large, setLarge] = useState('')
  const keep = (picture: Blob) => {
    setOn(false)
    setLarge('')
    if (picture.size > MOST_MEGABYTES * 1e6) return setLarge(`It has ${(picture.size / 1e6).toFixed(1)} MB, and ${MOST_MEGABYTES} is the most. Take it with fewer points.`)
    sending.mutate({ file: picture, tag: job.tag, ask: { do: 'photograph', of, moment, says, for_owner: false }, says: label })
  }
  if (!mayNote || job.stage === 'closed') return null
  if (isOn) return <Camera onTaken={keep} onClose={() => setOn(false)} />
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Button onClick={() => setOn(true)} disabled={sending.isPending}>
        {sending.isPending ? 'Sending…' : label}
      </Button>
      <FileButton label={`${label}, from a file`} accept="image/jpeg,image/png,image/webp,image/heic,image/heif" disabled={sending.isPending} onFile={keep}>
        From a file
      </FileButton>
      {large && (
        <Notice tone="danger" title="Too large" role="alert">
          {large}
        </Notice>
      )}
      {sending.error && (
        <Notice tone="danger" title="The photo is not kept yet" role="alert">
          {sending.error.message}
        </Notice>
      )}
    </div>
  )
}

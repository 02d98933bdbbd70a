import { useEffect, useRef, useState } from 'react'
import { Button } from '@/ui/button'
import { Notice } from '@/ui/panel'

const WANTED: MediaStreamConstraints = { video: { facingMode: { ideal: 'environment' }, width: { ideal: 1920 }, height: { ideal: 1440 } }, audio: false }

/** Why there is no picture, in words that say what to do. */
function sayNoCamera(error: unknown): string {
  const name = error instanceof DOMException ? error.name : ''
  if (name === 'NotAllowedError') return 'The browser may not use the camera. Allow it beside the address, or take a picture from a file.'
  if (name === 'NotFoundError' || name === 'OverconstrainedError') return 'No camera was found. Plug one in, or take a picture from a file.'
  if (name === 'NotReadableError') return 'Another program uses the camera. Close it there, or take a picture from a file.'
  return 'This browser gives no camera to a page. Take a picture from a file.'
}

/** The camera of the bench or the phone, in the browser; its light goes out when this is closed. */
export function Camera({ onTaken, onClose }: { onTaken: (picture: Blob) => void; onClose: () => void }) {
  const video = useRef<HTMLVideoElement>(null)
  const [problem, setProblem] = useState('')
  const [isOn, setOn] = useState(false)
  useEffect(() => {
    let stream: MediaStream | null = null
    let isGone = false
    const start = async () => {
      try {
        if (!('mediaDevices' in navigator)) throw new Error('none')
        stream = await navigator.mediaDevices.getUserMedia(WANTED)
        if (isGone || !video.current) return stream.getTracks().forEach((t) => t.stop())
        video.current.srcObject = stream
        await video.current.play()
        setOn(true)
      } catch (error) {
        if (!isGone) setProblem(sayNoCamera(error))
      }
    }
    void start()
    return () => {
      isGone = true
      stream?.getTracks().forEach((t) => t.stop())
    }
  }, [])
  const take = () => {
    const seen = video.current
    if (!seen) return
    const still = document.createElement('canvas')
    still.width = seen.videoWidth
    still.height = seen.videoHeight
    still.getContext('2d')?.drawImage(seen, 0, 0)
    still.toBlob((picture) => picture && onTaken(picture), 'image/jpeg', 0.92)
  }
  if (problem)
    return (
      <Notice tone="brass" title="No camera" role="alert">
        <p>{problem}</p>
        <Button className="mt-1.5" onClick={onClose}>
          Understood
        </Button>
      </Notice>
    )
  return (
    <div className="space-y-2">
      <video ref={video} muted playsInline aria-label="What the camera sees" className="max-h-[46vh] w-full rounded-lg border border-ink bg-ink object-contain" />
      <div className="flex flex-wrap gap-2">
        <Button kind="act" disabled={!isOn} onClick={take} className="min-h-14! text-[1.15rem]">
          {isOn ? 'Take it' : 'Camera starts…'}
        </Button>
        <Button kind="quiet" onClick={onClose}>
          No photo now
        </Button>
      </div>
    </div>
  )
}

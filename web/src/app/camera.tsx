import { useEffect, useRef, useState } from 'react'
import { TAG } from '@/lib/wedge'
import { Dialog } from '@/ui/dialog'
import { Notice } from '@/ui/panel'

const LOOK_EVERY_MS = 150

interface Seen {
  onTag: (tag: string) => void
  onOther: (words: string) => void
  onProblem: () => void
}

/** Look through the camera until a tag is seen. */
function useCameraEye({ onTag, onOther, onProblem }: Seen) {
  const video = useRef<HTMLVideoElement>(null)
  const said = useRef({ onTag, onOther, onProblem })
  useEffect(() => {
    said.current = { onTag, onOther, onProblem }
  })
  useEffect(() => {
    let stream: MediaStream | undefined
    let timer = 0
    let isOver = false
    const begin = async () => {
      try {
        if (!navigator.mediaDevices) throw new Error('no camera')
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } })
        const { default: read } = await import('jsqr')
        if (isOver || !video.current) return stop()
        video.current.srcObject = stream
        await video.current.play()
        timer = window.setInterval(() => look(read), LOOK_EVERY_MS)
      } catch {
        said.current.onProblem()
      }
    }
    const canvas = document.createElement('canvas')
    const look = (read: typeof import('jsqr').default) => {
      const from = video.current
      const paper = canvas.getContext('2d', { willReadFrequently: true })
      if (!from || !paper || from.videoWidth === 0) return
      canvas.width = from.videoWidth
      canvas.height = from.videoHeight
      paper.drawImage(from, 0, 0)
      const { data } = read(paper.getImageData(0, 0, canvas.width, canvas.height).data, canvas.width, canvas.height) ?? {}
      if (!data) return
      const tag = data.trim().toUpperCase()
      if (TAG.test(tag)) {
        window.clearInterval(timer)
        said.current.onTag(tag)
      } else said.current.onOther(data.slice(0, 60))
    }
    const stop = () => {
      isOver = true
      window.clearInterval(timer)
      stream?.getTracks().forEach((t) => t.stop())
    }
    void begin()
    return stop
  }, [])
  return video
}

/** Reads a tag with this device's camera. Nothing leaves the browser but the tag. */
export function CameraDialog({ onTag, onClose }: { onTag: (tag: string) => void; onClose: () => void }) {
  const [isBroken, setBroken] = useState(false)
  const [other, setOther] = useState('')
  const video = useCameraEye({ onTag, onOther: setOther, onProblem: () => setBroken(true) })
  return (
    <Dialog title="Scan a tag with the camera" open onClose={onClose} note="Hold the code into the picture. It opens by itself.">
      {isBroken ? (
        <Notice tone="danger" title="The camera does not work" role="alert">
          No camera, or this browser may not use it. Allow it in the address bar, or type the tag into the search.
        </Notice>
      ) : (
        <video ref={video} muted playsInline className="w-full rounded-lg bg-ink" />
      )}
      {other && (
        <p role="status" className="mt-2 text-brass">
          That code says “{other}”: it is none of our tags.
        </p>
      )}
    </Dialog>
  )
}

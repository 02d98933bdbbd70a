import { useEffect, useRef, useState } from 'react'
import { TAG } from '@/lib/wedge'
import { Dialog } from '@/ui/dialog'
import { Notice } from '@/ui/panel'

const LOOK_EVERY_MS = 150

/** Reads a tag with this device's camera. Nothing leaves the browser but the tag. */
export function CameraDialog({ onTag, onClose }: { onTag: (tag: string) => void; onClose: () => void }) {
  const video = useRef<HTMLVideoElement>(null)
  const [problem, setProblem] = useState('')
  const [other, setOther] = useState('')
  const found = useRef(onTag)
  useEffect(() => {
    found.current = onTag
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
        setProblem('No camera, or this browser may not use it. Allow it in the address bar, or type the tag into the search.')
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
        found.current(tag)
      } else setOther(data.slice(0, 60))
    }
    const stop = () => {
      isOver = true
      window.clearInterval(timer)
      stream?.getTracks().forEach((t) => t.stop())
    }
    void begin()
    return stop
  }, [])
  return (
    <Dialog title="Scan a tag with the camera" open onClose={onClose} note="Hold the code into the picture. It opens by itself.">
      {problem ? (
        <Notice tone="danger" title="The camera does not work" role="alert">
          {problem}
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

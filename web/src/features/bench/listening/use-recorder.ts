import { useCallback, useEffect, useRef, useState } from 'react'
import { wavOf } from './wav'

export const LEAST_S = 5
export const MOST_S = 60
const WANTED: MediaStreamConstraints = { audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false }, video: false }

interface Block {
  samples?: Int16Array
  peak?: number
  isLast?: boolean
}

export type Recorder = {
  state: 'off' | 'starts' | 'on'
  /** Seconds heard so far, and the highest peak of the last half second, of 1. */
  seconds: number
  peak: number
  problem: string
  start: () => Promise<void>
  stop: () => void
  drop: () => void
}

/** Why nothing can be recorded, in words that say what to do. */
export function sayNoMicrophone(error: unknown): string {
  const name = error instanceof DOMException ? error.name : ''
  if (name === 'NotAllowedError') return 'The browser may not use the microphone. Allow it beside the address, or load a recording from a file.'
  if (name === 'NotFoundError' || name === 'OverconstrainedError') return 'No microphone was found. Plug one in, or load a recording from a file.'
  if (name === 'NotReadableError') return 'Another program uses the microphone. Close it there, or load a recording from a file.'
  return 'This browser gives no microphone to a page. Load a recording from a file.'
}

/** What of the microphone is open while it records. */
interface Line {
  stream: MediaStream
  context: AudioContext
  node: AudioWorkletNode
  blocks: Int16Array[]
  samples: number
  peaks: number[]
}

async function open(): Promise<Line> {
  if (!('mediaDevices' in navigator) || typeof AudioWorkletNode === 'undefined') throw new Error('none')
  const stream = await navigator.mediaDevices.getUserMedia(WANTED)
  const context = new AudioContext()
  try {
    await context.audioWorklet.addModule('/recorder-worklet.js')
    const node = new AudioWorkletNode(context, 'recorder', { numberOfOutputs: 0, channelCount: 1, channelCountMode: 'explicit' })
    context.createMediaStreamSource(stream).connect(node)
    return { stream, context, node, blocks: [], samples: 0, peaks: [] }
  } catch (error) {
    stream.getTracks().forEach((t) => t.stop())
    void context.close()
    throw error
  }
}

function shut(line: Line): void {
  line.stream.getTracks().forEach((t) => t.stop())
  if (line.context.state !== 'closed') void line.context.close()
}

/** Follows what comes over the line: every block, its end, and a plug that is pulled. */
function follow(line: Line, onHeard: () => void, onEnd: () => void, onLost: () => void): void {
  line.stream.getTracks()[0]?.addEventListener('ended', onLost)
  line.node.port.onmessage = ({ data }: MessageEvent<Block>) => {
    if (data.isLast) return onEnd()
    if (!data.samples) return
    line.blocks.push(data.samples)
    line.samples += data.samples.length
    line.peaks = [...line.peaks.slice(-5), data.peak ?? 0]
    onHeard()
    if (line.samples >= MOST_S * line.context.sampleRate) line.node.port.postMessage('stop')
  }
}

/** Whether the screen has gone on; the microphone goes with it. */
function useGone(line: { current: Line | null }): { readonly current: boolean } {
  const isGone = useRef(false)
  useEffect(() => {
    isGone.current = false
    return () => {
      isGone.current = true
      if (line.current) shut(line.current)
      line.current = null
    }
  }, [line])
  return isGone
}

/** The microphone of the bench: 5 to 60 seconds as a WAV file at the rate of its track. Its light goes out when this is over. */
export function useRecorder(onDone: (recording: Blob) => void): Recorder {
  const [state, setState] = useState<Recorder['state']>('off')
  const [problem, setProblem] = useState('')
  const [seconds, setSeconds] = useState(0)
  const [peak, setPeak] = useState(0)
  const line = useRef<Line | null>(null)
  const done = useRef(onDone)
  useEffect(() => {
    done.current = onDone
  }, [onDone])
  const stop = useCallback(() => line.current?.node.port.postMessage('stop'), [])
  const drop = useCallback(() => {
    if (line.current) shut(line.current)
    line.current = null
    setState('off')
  }, [])
  const isGone = useGone(line)
  const start = useCallback(async () => {
    setProblem('')
    setSeconds(0)
    setPeak(0)
    setState('starts')
    let mine: Line
    try {
      mine = await open()
    } catch (error) {
      setProblem(sayNoMicrophone(error))
      return setState('off')
    }
    if (isGone.current) return shut(mine)
    line.current = mine
    setState('on')
    const end = () => {
      if (line.current !== mine) return
      line.current = null
      shut(mine)
      setState('off')
      if (mine.samples < LEAST_S * mine.context.sampleRate) return setProblem(`Under ${LEAST_S} seconds say nothing. Record the whole try.`)
      done.current(wavOf(mine.blocks, mine.context.sampleRate))
    }
    const hear = () => {
      setSeconds(mine.samples / mine.context.sampleRate)
      setPeak(Math.max(...mine.peaks))
    }
    follow(mine, hear, end, () => {
      setProblem('The microphone was unplugged. What was heard until then is here.')
      end()
    })
  }, [isGone])
  return { state, seconds, peak, problem, start, stop, drop }
}

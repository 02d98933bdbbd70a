/** A WAV file of 16 bit, one channel, from the blocks of a recording. */
export function wavOf(blocks: readonly Int16Array[], rate: number): Blob {
  const bytes = 2 * blocks.reduce((n, b) => n + b.length, 0)
  const head = new DataView(new ArrayBuffer(44))
  const text = (at: number, said: string) => [...said].forEach((c, n) => head.setUint8(at + n, c.charCodeAt(0)))
  text(0, 'RIFF')
  head.setUint32(4, 36 + bytes, true)
  text(8, 'WAVEfmt ')
  head.setUint32(16, 16, true)
  head.setUint16(20, 1, true)
  head.setUint16(22, 1, true)
  head.setUint32(24, rate, true)
  head.setUint32(28, 2 * rate, true)
  head.setUint16(32, 2, true)
  head.setUint16(34, 16, true)
  text(36, 'data')
  head.setUint32(40, bytes, true)
  return new Blob([head.buffer, ...blocks.map((b) => b.slice().buffer)], { type: 'audio/wav' })
}

/** How loud it is, in a word: from the highest of the last blocks. */
export function loudness(peak: number): 'silent' | 'quiet' | 'good' | 'loud' {
  if (peak >= 0.98) return 'loud'
  if (peak >= 0.03) return 'good'
  return peak >= 0.002 ? 'quiet' : 'silent'
}

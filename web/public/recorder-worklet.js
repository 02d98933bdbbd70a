// Sends what the microphone hears as blocks of 16 bit, with the peak and the mean square of each.
class Recorder extends AudioWorkletProcessor {
  constructor() {
    super()
    this.block = new Int16Array(4096)
    this.filled = 0
    this.peak = 0
    this.square = 0
    this.isOver = false
    this.port.onmessage = () => {
      this.send()
      this.isOver = true
      this.port.postMessage({ isLast: true })
    }
  }

  send() {
    if (!this.filled) return
    this.port.postMessage({ samples: this.block.slice(0, this.filled), peak: this.peak, rms: Math.sqrt(this.square / this.filled) })
    this.filled = this.peak = this.square = 0
  }

  process(inputs) {
    const heard = inputs[0] && inputs[0][0]
    for (let n = 0; heard && n < heard.length; n++) {
      const x = Math.max(-1, Math.min(1, heard[n]))
      this.peak = Math.max(this.peak, Math.abs(x))
      this.square += x * x
      this.block[this.filled++] = Math.round(x * 32767)
      if (this.filled === this.block.length) this.send()
    }
    return !this.isOver
  }
}

registerProcessor('recorder', Recorder)

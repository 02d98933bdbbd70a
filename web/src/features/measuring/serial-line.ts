/** A meter on the bench's own computer, through the browser's serial ports where it has them. What is used of them, no more. */
interface Port {
  open: (options: { baudRate: number }) => Promise<void>
  close: () => Promise<void>
  readable: ReadableStream<Uint8Array> | null
  writable: WritableStream<Uint8Array> | null
}
interface Ports {
  requestPort: () => Promise<Port>
}

const QUERIES: Record<string, string> = { voltage: 'MEAS:VOLT:DC?', resistance: 'MEAS:RES?', current: 'MEAS:CURR:DC?' }
const SILENT_MS = 3_000

export const serialPorts = (): Ports | undefined => (navigator as { serial?: Ports }).serial

/** An open line: asks for one reading at a time. */
export class SerialLine {
  private constructor(private readonly port: Port) {}

  static async open(ports: Ports): Promise<SerialLine> {
    const port = await ports.requestPort()
    await port.open({ baudRate: 9600 })
    return new SerialLine(port)
  }

  async ask(quantity: string): Promise<string> {
    const { readable, writable } = this.port
    if (!readable || !writable) throw new Error('The line to the meter broke.')
    const writer = writable.getWriter()
    await writer.write(new TextEncoder().encode(`${QUERIES[quantity] ?? ''}\n`))
    writer.releaseLock()
    const reader = readable.getReader()
    const silent = setTimeout(() => void reader.cancel(), SILENT_MS)
    try {
      let text = ''
      for (;;) {
        const { value, done } = await reader.read()
        text += new TextDecoder().decode(value)
        if (text.includes('\n')) return text.slice(0, text.indexOf('\n'))
        if (done || text.length > 200) throw new Error('The meter is silent. Is it on, and is its cable in?')
      }
    } finally {
      clearTimeout(silent)
      reader.releaseLock()
    }
  }

  close(): void {
    void this.port.close().catch(() => undefined)
  }
}

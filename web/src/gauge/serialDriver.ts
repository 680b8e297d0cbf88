import { type GaugeDriver, lineReader } from './driver'

/** The part of the browser’s Web Serial port that is used here. */
export interface Port {
  open(options: { baudRate: number }): Promise<void>
  close(): Promise<void>
  readonly readable: ReadableStream<Uint8Array> | null
  readonly writable: WritableStream<Uint8Array> | null
}

const BAUD = 115_200

/** A real instrument at a serial or USB port, with the same line protocol. */
export function serialDriver(choosePort: () => Promise<Port>): GaugeDriver {
  let port: Port | null = null
  let reader: ReadableStreamDefaultReader<Uint8Array> | null = null
  let writer: WritableStreamDefaultWriter<Uint8Array> | null = null

  async function listen(hear: (line: string) => void, closed: () => void): Promise<void> {
    const decoder = new TextDecoder()
    const read = lineReader(hear)
    try {
      for (;;) {
        const piece = await reader?.read()
        if (!piece || piece.done) break
        read(decoder.decode(piece.value, { stream: true }))
      }
    } catch {
      // A cable that was pulled ends the stream with an error; for the link it is closed, as any other end.
    } finally {
      await release()
      closed()
    }
  }

  async function release(): Promise<void> {
    reader?.releaseLock()
    writer?.releaseLock()
    reader = null
    writer = null
    const held = port
    port = null
    await held?.close().catch(() => undefined)
  }

  return {
    title: 'Gauge at the USB port',
    virtual: false,
    async open(hear, closed) {
      const chosen = await choosePort()
      await chosen.open({ baudRate: BAUD })
      port = chosen
      reader = chosen.readable?.getReader() ?? null
      writer = chosen.writable?.getWriter() ?? null
      if (!reader || !writer) {
        await release()
        throw new Error('The port cannot be read. Unplug the gauge and plug it in again.')
      }
      void listen(hear, closed)
    },
    send(line) {
      void writer?.write(new TextEncoder().encode(`${line}\n`)).catch(() => undefined)
    },
    close() {
      void reader?.cancel().catch(() => undefined)
    },
  }
}

/** Whether this browser can talk to serial ports. */
export const serialSupported = (): boolean => 'serial' in navigator

/** Lets the person choose a port once; afterwards the browser knows it. */
export async function chooseSerialPort(): Promise<Port> {
  const { serial } = navigator as unknown as {
    serial: { getPorts(): Promise<Port[]>; requestPort(): Promise<Port> }
  }
  const [known] = await serial.getPorts()
  return known ?? serial.requestPort()
}

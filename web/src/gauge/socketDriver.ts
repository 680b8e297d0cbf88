import { type GaugeDriver, lineReader } from './driver'

/** The stand-in: the line protocol over WebSocket. */
export function socketDriver(url: string): GaugeDriver {
  let socket: WebSocket | null = null
  return {
    title: 'Simulated gauge',
    virtual: true,
    open(hear, closed) {
      const opened = new WebSocket(url)
      socket = opened
      const read = lineReader(hear)
      opened.addEventListener('message', (event) => read(String(event.data)))
      return new Promise((resolve, reject) => {
        opened.addEventListener('open', () => resolve())
        opened.addEventListener('error', () => reject(new Error('The gauge does not answer.')))
        opened.addEventListener('close', () => {
          if (socket === opened) socket = null
          closed()
        })
      })
    },
    send(line) {
      if (socket?.readyState === WebSocket.OPEN) socket.send(`${line}\n`)
    },
    close() {
      socket?.close()
      socket = null
    },
  }
}

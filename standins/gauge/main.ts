import { WebSocketServer } from 'ws'
import { HiddenSites } from './sites'
import { Instrument } from './instrument'
import { mayConnect } from './origin'

/**
 * Stands in for a test gauge: the line protocol over WebSocket, on loopback. Each connection is one
 * gauge. UVANTA_GAUGE_SPEED lets its time run faster than the clock’s.
 */
const TICK_MS = 100
const port = Number(process.env.UVANTA_GAUGE_PORT ?? 4890)
const speed = Math.max(1, Math.round(Number(process.env.UVANTA_GAUGE_SPEED ?? 1)))
const data = process.env.UVANTA_DATA ?? '.uvanta'

const sites = new HiddenSites(`${data}/virtual-sites.json`, `${data}/virtual-services.json`)
const server = new WebSocketServer({
  host: '127.0.0.1',
  port,
  maxPayload: 4096,
  verifyClient: ({ origin }: { origin?: string }) =>
    mayConnect(origin, {
      publicUrl: process.env.UVANTA_PUBLIC_URL,
      port: process.env.UVANTA_PORT,
    }),
})
server.on('listening', () => process.stdout.write(`gauge stand-in at ws://127.0.0.1:${port}\n`))

server.on('connection', (socket) => {
  const instrument = new Instrument(sites, (line) => socket.send(`${line}\n`), Math.random)
  const timer = setInterval(() => {
    for (let n = 0; n < speed; n++) instrument.tick()
  }, TICK_MS)
  socket.on('message', (data) => {
    for (const line of data.toString().split('\n')) if (line) instrument.hear(line)
  })
  socket.on('close', () => clearInterval(timer))
  socket.on('error', () => socket.close())
})

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    for (const client of server.clients) client.terminate()
    server.close(() => process.exit(0))
  })
}

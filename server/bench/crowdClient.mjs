// Technicians who write without pause, in a thread beside the server that they write to.
import { Agent, request } from 'node:http'
import { randomUUID } from 'node:crypto'
import { parentPort, workerData } from 'node:worker_threads'

const { base, crowd, forMs } = workerData
const agent = new Agent({ keepAlive: true, maxSockets: crowd.length })

const post = (path, cookie, body) =>
  new Promise((done, failed) => {
    const sent = request(`${base}${path}`, {
      agent,
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Cookie: cookie },
    })
    sent.once('error', failed)
    sent.once('response', (answer) => {
      answer.resume()
      answer.once('end', () => done(answer.statusCode))
    })
    sent.end(body)
  })

const taken = []
let refused = 0
const until = performance.now() + forMs
async function write({ visit, cookie, count }) {
  for (let expected = count; performance.now() < until; expected++) {
    const event = {
      id: randomUUID(),
      kind: 'note',
      payload: { station: 'prepare', text: 'Vent clear, no water in the pit.' },
      deviceTime: new Date().toISOString(),
      deviceOffset: 0,
    }
    const began = performance.now()
    const body = JSON.stringify({ expected, events: [event] })
    if ((await post(`/api/v1/visits/${visit}/events`, cookie, body)) !== 200) {
      refused++
      return
    }
    taken.push(performance.now() - began)
  }
}
await Promise.all(crowd.map(write))
agent.destroy()
parentPort.postMessage({ taken, refused })

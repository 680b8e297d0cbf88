// The disk fills up while somebody writes: full-test.mjs HOME, on a disk of its own that is small
import { closeSync, openSync, rmSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import { launcherOf } from './launched.mjs'
import { noteOf, PASSWORD, pause, setUp } from './oneVisit.mjs'

const [home] = process.argv.slice(2)
const base = `http://127.0.0.1:${process.env.UVANTA_PORT}`
const say = (line) => process.stdout.write(`· ${line}\n`)
const { start, stop, command } = launcherOf(home, base)

await start()
command(['admin', 'anna'], PASSWORD)
const { odda, plan } = await setUp(base)
const visit = await plan()

const ballast = join(home, 'ballast')
const fill = () => {
  const file = openSync(ballast, 'w')
  const block = Buffer.alloc(1_000_000)
  try {
    for (;;) writeSync(file, block)
  } catch (error) {
    if (error.code !== 'ENOSPC') throw error
  } finally {
    closeSync(file)
  }
}
const acknowledged = []
const send = (event) =>
  odda.call('POST', `/api/v1/visits/${visit}/events`, {
    expected: acknowledged.length + 1,
    events: [event],
  })
let event
let answer
const write = async () => {
  event = noteOf(`${'x'.repeat(1_900)} ${acknowledged.length}`)
  answer = await send(event)
  if (answer.status === 200) acknowledged.push(event.id)
}
await write()
fill()
// The room is looked at once a second.
await pause(1_100)
do await write()
while (answer.status === 200 && acknowledged.length < 20_000)
if (answer.status !== 503 || !/disk of the server is full/.test(answer.body?.why ?? ''))
  throw new Error(`a full disk is said as ${answer.status} ${JSON.stringify(answer.body)}`)
say(`${acknowledged.length} entries were taken, the next is refused in words`)

rmSync(ballast)
await odda.note(visit, acknowledged.length + 1, event, 60_000)
acknowledged.push(event.id)
const { events } = await odda.must('GET', `/api/v1/visits/${visit}`)
const stored = events.slice(1).map((e) => e.id)
if (stored.join() !== acknowledged.join()) throw new Error('something was lost or doubled')
command(['verify-chain'])
say('With room again it is taken; nothing is lost or doubled')
await stop()

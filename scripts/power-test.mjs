// Pulls the plug of everything at a random moment under load, again and again: power-test.mjs HOME CUTS
import { launcherOf } from './launched.mjs'
import { noteOf, PASSWORD, pause, setUp } from './oneVisit.mjs'

const [home, cuts] = process.argv.slice(2)
const base = `http://127.0.0.1:${process.env.UVANTA_PORT}`
/** Four write at once; a log that has grown long is left for a new one. */
const WRITERS = 4
const LONG = 300

const say = (line) => process.stdout.write(`· ${line}\n`)
const { start, stop, isUp, untilUp, pidOf, launcher, command } = launcherOf(home, base)
const plugs = {
  all: () => [-launcher().pid, pidOf('app.pid'), pidOf('db/mariadbd.pid')],
  application: () => [pidOf('app.pid')],
  database: () => [pidOf('db/mariadbd.pid')],
}
/** As a pulled plug, mostly of everything: nothing of it has time for anything. */
async function cut(n) {
  const which = n % 4 === 2 ? 'application' : n % 4 === 3 ? 'database' : 'all'
  for (const pid of plugs[which]()) process.kill(pid, 'SIGKILL')
  if (which === 'all') return start()
  // The launcher sees to the rest.
  await pause(300)
  return untilUp()
}

await start()
command(['admin', 'anna'], PASSWORD)
const { odda, plan } = await setUp(base)

/** One who writes without pause; what is acknowledged is remembered here alone. */
class Writer {
  acknowledged = []
  stopped = false
  async begin() {
    this.visit = await plan()
    this.acknowledged = []
  }
  async run() {
    while (!this.stopped) {
      const event = noteOf(`note ${this.acknowledged.length + 1}`)
      await odda.note(this.visit, this.acknowledged.length + 1, event, 120_000)
      this.acknowledged.push(event.id)
    }
  }
  /** Each that was acknowledged is there once, in its order, and nothing beside. */
  async check() {
    const { events } = await odda.must('GET', `/api/v1/visits/${this.visit}`)
    const stored = events.slice(1).map((e) => e.id)
    const same =
      stored.length === this.acknowledged.length &&
      stored.every((id, n) => id === this.acknowledged[n])
    if (!same)
      throw new Error(
        `${this.acknowledged.length} were acknowledged, ${stored.length} are there, or in another order`,
      )
    return stored.length
  }
}

let total = 0
let longest = 0
const writers = Array.from({ length: WRITERS }, () => new Writer())
for (const w of writers) await w.begin()
for (let n = 1; n <= Number(cuts); n++) {
  for (const w of writers) w.stopped = false
  const writing = Promise.all(writers.map((w) => w.run()))
  // A failure is heard of below, when it is waited for.
  writing.catch(() => undefined)
  await pause(200 + Math.random() * 1_300)
  const began = Date.now()
  await cut(n)
  longest = Math.max(longest, Date.now() - began)
  await pause(Math.random() * 300)
  for (const w of writers) w.stopped = true
  await writing
  for (const w of writers) {
    const length = await w.check()
    if (length < LONG && n < Number(cuts)) continue
    total += length
    await w.begin()
  }
  if (n % 20 === 0) say(`${n} cuts`)
}
say(
  `${cuts} cuts, ${total} entries acknowledged: each is there once, in its order; up again within ${(longest / 1000).toFixed(1)} s`,
)

say('The database hangs for a while')
const held = pidOf('db/mariadbd.pid')
process.kill(held, 'SIGSTOP')
const event = noteOf('written while the database hangs')
const [w] = writers
const waiting = odda.note(w.visit, 1, event, 60_000)
waiting.catch(() => undefined)
await pause(6_000)
if (await isUp()) throw new Error('it says that it is ready')
process.kill(held, 'SIGCONT')
await waiting
w.acknowledged.push(event.id)
await w.check()

command(['verify-chain'])
say('Every chain verifies')
await stop()

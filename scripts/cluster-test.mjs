// A stream of appends through the proxy, while what carries it dies bit by bit, is renewed, and backed up.
import { execFile } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { nodesOf, say } from './clusterNodes.mjs'
import { noteOf, pause, setUp } from './oneVisit.mjs'

const [base, home] = process.argv.slice(2)
const EVENTS = 240
const program = join(import.meta.dirname, '..', 'uvanta')
/** A command of the launcher, beside the stream; what it prints as JSON. */
const command = async (...words) => {
  const { stdout } = await promisify(execFile)(program, ['--json', ...words])
  return JSON.parse(stdout.split('\n').filter(Boolean).at(-1) ?? '{}')
}
const nodes = nodesOf(home)
const pidOf = (name) => Number(readFileSync(join(home, 'cluster', name), 'utf8'))

const { odda, plan } = await setUp(base)
const visit = await plan()

/** What dies, and before which entry; a death is as sudden as a pulled plug. */
const blows = {
  40: () => {
    say('The node that is written to is killed')
    process.kill(pidOf('node1/started.pid'), 'SIGKILL')
  },
  90: () => {
    say('A process of the application is killed')
    process.kill(pidOf('app1.pid'), 'SIGKILL')
  },
  60: () => {
    say('With a node down: a backup, a copy of the changes, a drill, and a look at every chain')
    beside = backUp()
  },
  140: async () => {
    await beside
    say('The node comes back, and has caught up')
    await command('cluster', '--node', '1')
    await pause(4_000)
    say('The node that is written to is cut off from the others')
    nodes.on(1, "SET GLOBAL wsrep_provider_options = 'gmcast.isolate=1'")
  },
  200: () => {
    say('It is no longer cut off')
    nodes.on(1, "SET GLOBAL wsrep_provider_options = 'gmcast.isolate=0'")
  },
}

async function backUp() {
  const { file } = await command('backup', join(home, 'one.tar'))
  await command('backup', '--changes', join(home, 'changes'))
  await command('drill', file)
  const { faults } = await command('verify-chain')
  if (faults.length > 0) throw new Error(`${faults.length} faults`)
  const { findings } = await command('doctor').catch((error) => JSON.parse(error.stdout))
  if (!findings.some(({ what }) => what.startsWith('running as')))
    throw new Error('doctor sees nothing')
}
let beside
const sent = []
let longest = 0
for (let n = 1; n <= EVENTS; n++) {
  await blows[n]?.()
  const event = noteOf(`note ${n}`)
  longest = Math.max(longest, await odda.note(visit, sent.length + 1, event, 60_000))
  sent.push(event.id)
}

say('A new version is taken up, one process after the other')
const rolled = new AbortController()
const rolling = command('cluster', '--roll').finally(() => rolled.abort())
let refused = 0
let meanwhile = 0
while (!rolled.signal.aborted) {
  const event = noteOf(`note ${sent.length + 1}`)
  const answer = await odda
    .call('POST', `/api/v1/visits/${visit}/events`, { expected: sent.length + 1, events: [event] })
    .catch((error) => ({ status: error.message }))
  if (answer.status === 200) sent.push(event.id)
  else {
    refused++
    say(`refused: ${answer.status}`)
  }
  meanwhile++
  await pause(20)
}
await rolling
if (refused > 0) throw new Error(`${refused} of ${meanwhile} entries were refused`)
say(`${meanwhile} entries meanwhile, none refused`)
await command('backup', '--changes', join(home, 'changes'))
say(
  `${sent.length} entries acknowledged; nobody waited longer than ${(longest / 1000).toFixed(1)} s`,
)

await nodes.hold(visit, sent)
writeFileSync(join(home, 'sent.json'), JSON.stringify({ visit, sent, cookie: odda.cookie }))

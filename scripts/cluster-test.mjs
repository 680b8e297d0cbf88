// A stream of appends through the proxy, while what carries it dies bit by bit.
import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { nodesOf, say, within } from './clusterNodes.mjs'
import { noteOf, pause, setUp } from './oneVisit.mjs'

const [base, home] = process.argv.slice(2)
const EVENTS = 240
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
  140: async () => {
    say('The node comes back, and has caught up')
    execFileSync('bash', [join(import.meta.dirname, 'cluster-node.sh'), '1'], { stdio: 'ignore' })
    await within(90, 'node 1 has caught up', () =>
      nodes.on(1, "SHOW STATUS LIKE 'wsrep_local_state_comment'").endsWith('Synced'),
    )
    await pause(4_000)
    say('The node that is written to is cut off from the others')
    nodes.on(1, "SET GLOBAL wsrep_provider_options = 'gmcast.isolate=1'")
  },
  200: () => {
    say('It is no longer cut off')
    nodes.on(1, "SET GLOBAL wsrep_provider_options = 'gmcast.isolate=0'")
  },
}

const sent = []
let longest = 0
for (let n = 1; n <= EVENTS; n++) {
  await blows[n]?.()
  const event = noteOf(`note ${n}`)
  longest = Math.max(longest, await odda.note(visit, sent.length + 1, event, 60_000))
  sent.push(event.id)
}
say(`${EVENTS} entries acknowledged; nobody waited longer than ${(longest / 1000).toFixed(1)} s`)

await nodes.hold(visit, sent)
writeFileSync(join(home, 'sent.json'), JSON.stringify({ visit, sent, cookie: odda.cookie }))

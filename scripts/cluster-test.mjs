// A stream of appends through the proxy, while what carries it dies bit by bit.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { noteOf, pause, setUp } from './oneVisit.mjs'

const [base, home] = process.argv.slice(2)
const EVENTS = 240
const say = (line) => process.stdout.write(`· ${line}\n`)
const fail = (why) => {
  process.stderr.write(`cluster: ${why}\n`)
  process.exit(1)
}
const socketOf = (node) =>
  `/tmp/uvanta-${createHash('sha256').update(join(home, 'cluster')).digest('hex').slice(0, 12)}-${node}.sock`
const onNode = (node, sql) =>
  execFileSync('mariadb', ['--no-defaults', `--socket=${socketOf(node)}`, '-N', '-e', sql], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
  }).trim()
const pidOf = (name) => Number(readFileSync(join(home, 'cluster', name), 'utf8'))
const within = async (seconds, what, holds) => {
  for (let n = 0; n < seconds * 4; n++) {
    try {
      if (await holds()) return
    } catch {
      // Not yet.
    }
    await pause(250)
  }
  fail(`${what}: not within ${seconds} s`)
}

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
      onNode(1, "SHOW STATUS LIKE 'wsrep_local_state_comment'").endsWith('Synced'),
    )
    await pause(4_000)
    say('The node that is written to is cut off from the others')
    onNode(1, "SET GLOBAL wsrep_provider_options = 'gmcast.isolate=1'")
  },
  200: () => {
    say('It is no longer cut off')
    onNode(1, "SET GLOBAL wsrep_provider_options = 'gmcast.isolate=0'")
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

for (const node of [1, 2, 3])
  await within(60, `node ${node} is in step`, () =>
    onNode(node, "SHOW STATUS LIKE 'wsrep_cluster_size'").endsWith('3'),
  )
for (const node of [1, 2, 3]) {
  const rows = onNode(
    node,
    `SET SESSION wsrep_sync_wait = 1; SELECT seq, id FROM uvanta.visit_event WHERE visit_id = '${visit}' ORDER BY seq`,
  )
  const [, ...stored] = rows.split('\n').map((row) => row.split('\t'))
  const numbers = stored.every(([seq], index) => Number(seq) === index + 2)
  const same = stored.length === sent.length && stored.every(([, id], index) => id === sent[index])
  if (!numbers || !same)
    fail(`node ${node} holds ${stored.length} entries of ${sent.length}, or in another order`)
}
say('Every node holds each of them once, in their order, without a gap')

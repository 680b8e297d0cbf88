// A stream of appends through the proxy, while what carries it dies bit by bit.
import { execFileSync } from 'node:child_process'
import { createHash, randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'

const [base, home] = process.argv.slice(2)
const EVENTS = 240
const pause = (ms) => new Promise((done) => setTimeout(done, ms))
const say = (line) => process.stdout.write(`· ${line}\n`)
const fail = (why) => {
  process.stderr.write(`cluster: ${why}\n`)
  process.exit(1)
}
/** Days from now, as 2026-11-27. */
const day = (days) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)

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

class Person {
  cookie = ''
  async call(method, path, body, headers = {}) {
    const response = await fetch(`${base}${path}`, {
      method,
      // A process that has just died may leave a call hanging.
      signal: AbortSignal.timeout(4_000),
      headers: { 'Content-Type': 'application/json', Cookie: this.cookie, ...headers },
      ...(body ? { body: JSON.stringify(body) } : {}),
    })
    const set = response.headers.get('set-cookie')
    if (set) this.cookie = set.split(';')[0]
    return { status: response.status, body: await response.json().catch(() => null) }
  }
  async must(method, path, body) {
    const answer = await this.call(method, path, body)
    if (answer.status !== 200 && answer.status !== 204)
      fail(`${method} ${path}: ${answer.status} ${JSON.stringify(answer.body)}`)
    return answer.body
  }
}

const anna = new Person()
const password = 'four unlike words stand here'
await anna.must('POST', '/api/v1/session', { username: 'anna', password })
const ids = {
  tester: randomUUID(),
  customer: randomUUID(),
  site: randomUUID(),
  equipment: randomUUID(),
  visit: randomUUID(),
}
await anna.must('POST', '/api/v1/people', {
  id: ids.tester,
  username: 'odda',
  name: 'Odda',
  roles: ['technician', 'planner'],
  password,
})
await anna.must('POST', `/api/v1/people/${ids.tester}/licences`, {
  id: randomUUID(),
  kind: 'backflow-tester',
  number: 'BT-1',
  issuedOn: day(-100),
  expiresOn: day(200),
})
const odda = new Person()
await odda.must('POST', '/api/v1/session', { username: 'odda', password })
const next = 'and five others lie beneath them'
await odda.must('POST', '/api/v1/session/password', { current: password, next })
await odda.must('POST', '/api/v1/customers', { id: ids.customer, name: 'Larkhaven Leisure' })
await odda.must('POST', '/api/v1/sites', {
  id: ids.site,
  customerId: ids.customer,
  name: 'Seagate Bath',
  address: '1 Seagate',
  district: 'Harbour',
})
await odda.must('POST', '/api/v1/equipment', {
  id: ids.equipment,
  siteId: ids.site,
  tag: 'RP-1',
  family: 'reduced-pressure-assembly',
  kind: 'RP',
  sizeIn: '2',
  serial: 'S1',
  maker: 'Maker A',
  service: 'water',
  position: 'Plant room',
  programme: 'backflow-annual',
  dueOn: day(5),
})
await odda.must('POST', '/api/v1/visits', {
  id: ids.visit,
  equipmentId: ids.equipment,
  technicianId: ids.tester,
  plannedOn: day(0),
  purpose: 'periodic-test',
  rulePack: 'larkhaven-relief-first',
})

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
  const event = {
    id: randomUUID(),
    kind: 'note',
    payload: { station: 'prepare', text: `note ${n}` },
    deviceTime: new Date().toISOString(),
    deviceOffset: 0,
  }
  const began = Date.now()
  for (;;) {
    const answer = await odda
      .call('POST', `/api/v1/visits/${ids.visit}/events`, {
        expected: sent.length + 1,
        events: [event],
      })
      .catch(() => null)
    if (answer?.status === 200) break
    // Refused for good is another thing than not answered.
    if (answer && answer.status < 500)
      fail(`note ${n}: ${answer.status} ${JSON.stringify(answer.body)}`)
    if (Date.now() - began > 60_000)
      fail(`note ${n} was not taken for a minute; last: ${JSON.stringify(answer)}`)
    await pause(100)
  }
  longest = Math.max(longest, Date.now() - began)
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
    `SET SESSION wsrep_sync_wait = 1; SELECT seq, id FROM uvanta.visit_event WHERE visit_id = '${ids.visit}' ORDER BY seq`,
  )
  const [, ...stored] = rows.split('\n').map((row) => row.split('\t'))
  const numbers = stored.every(([seq], index) => Number(seq) === index + 2)
  const same = stored.length === sent.length && stored.every(([, id], index) => id === sent[index])
  if (!numbers || !same)
    fail(`node ${node} holds ${stored.length} entries of ${sent.length}, or in another order`)
}
say('Every node holds each of them once, in their order, without a gap')

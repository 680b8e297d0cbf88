import { existsSync, openSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { answersAt } from '../application.js'
import { needBuild } from '../build.js'
import { decideKind, sitesOf } from '../kind.js'
import { whoWorksIn } from '../lock.js'
import { LauncherError, say, step } from '../output.js'
import { ROOT } from '../packages.js'
import { hasEnded, startProgram, stopProgram } from '../processes.js'
import { databaseHome, needWhole, reaching } from '../running.js'
import { asOwner, server } from '../server.js'
import { textOf } from '../settings.js'
import { beginCluster, prepareNodes, syncedNode } from './attach.js'
import {
  clusterHome,
  nodeDatabase,
  NODES,
  portsOf,
  startNode,
  untilSynced,
  withTransferPrograms,
} from './nodes.js'

/** @typedef {import('../settings.js').Installation} Installation */

const PROCESSES = [1, 2]
/** Asked to take a new version up, the launcher of the cluster renews its processes one after the other. */
const ROLL = 'SIGHUP'

/**
 * Runs three nodes, a proxy before them, two processes of the application and a proxy before these.
 * @param {Installation} given
 */
export async function cluster(given) {
  needWhole(given)
  if (existsSync(join(databaseHome(given), 'data')))
    throw new LauncherError(
      `a single database is in ${given.data}. Back it up, and restore it into the directory of a cluster.`,
    )
  await needBuild(given)
  const nodes = await prepareNodes(given, 'cluster')
  step('Starting three nodes')
  const first = await beginCluster(nodes)
  for (const node of NODES.filter((n) => n !== first)) {
    const child = await startNode(nodes, node)
    await untilSynced(nodes, node, child)
  }
  await decideKind(given.data, nodeDatabase(nodes, first), 'own')
  const ports = portsOf(nodes)
  const installation = reaching(nodes, ports.databaseProxy)
  const proxy = await startProxy(installation)
  step('Bringing the schema up to date')
  await makeReady(installation)
  step('Starting two processes of the application')
  const processes = new Map()
  for (const number of PROCESSES) processes.set(number, await startProcess(installation, number))
  await within(20, 'the proxy does not pass anything on', () => answersAt(given.port, '/readyz'))
  let rolling = Promise.resolve()
  process.on(ROLL, () => {
    rolling = rolling
      .then(() => roll(installation, processes))
      .catch((error) => {
        step(`The new version could not be taken up: ${error.message}`)
      })
  })
  say()
  say(`  Uvanta is at  http://127.0.0.1:${given.port}, on three nodes and two processes`)
  say('  The first administrator, in another window:  ./uvanta admin NAME')
  say('  Ctrl-C stops it.')
  // What dies here stays dead: it is the others that go on, and whoever runs it who looks.
  while (!hasEnded(proxy)) await pause(1_000)
  throw new LauncherError(`the proxy ended; see ${clusterHome(given.data)}/haproxy.log`)
}

/**
 * Starts a node of the running cluster again that has died.
 * @param {Installation} given
 * @param {string} words its number
 */
export async function nodeAgain(given, words) {
  const node = NODES.find((n) => String(n) === words)
  if (!node) throw new LauncherError(`there is no node ${words}. Nodes are ${NODES.join(', ')}.`)
  await needRunning(given)
  // Somebody has to be there from whom it gets what it lacks.
  await syncedNode(given)
  const installation = await withTransferPrograms(given)
  const child = await startNode(installation, node, [], true)
  await untilSynced(installation, node, child)
  child.unref()
  say(
    `Node ${node} has caught up. It ends with its own process (${child.pid}), not with ./uvanta cluster.`,
  )
}

/**
 * Takes a new version up while people work: the schema first, then one process after the other.
 * @param {Installation} given
 */
export async function rollOver(given) {
  const { pid } = await needRunning(given)
  await needBuild(given)
  const installation = reaching(given, portsOf(given).databaseProxy)
  step('Bringing the schema up to date')
  await makeReady(installation)
  step('Renewing the processes of the application')
  const before = PROCESSES.map((number) => textOf(pidFile(given, number)))
  process.kill(pid, ROLL)
  await within(300, 'a process was not renewed', async () => {
    const ready = await Promise.all(
      PROCESSES.map((number) => answersAt(portsOf(given).application(number), '/readyz')),
    )
    const isNew = PROCESSES.every((number, n) => textOf(pidFile(given, number)) !== before[n])
    return isNew && ready.every(Boolean)
  })
  say('Both processes run the new version.')
}

/** Everything before a new version serves. @param {Installation} installation */
const makeReady = (installation) =>
  server(asOwner(installation), ['ready', sitesOf(installation.data), '--empty'])

/** @param {Installation} installation */
async function needRunning({ data }) {
  const holder = await whoWorksIn(data)
  if (holder?.as !== 'cluster')
    throw new LauncherError(`no cluster runs in ${data}. Start it with ./uvanta cluster.`)
  return holder
}

/** @param {Installation} installation @param {number} number */
const pidFile = ({ data }, number) => join(clusterHome(data), `app${number}.pid`)

/**
 * @param {Installation} installation
 * @param {number} number
 */
async function startProcess(installation, number) {
  const { data, env, port } = installation
  const own = portsOf(installation).application(number)
  const log = openSync(join(clusterHome(data), `app${number}.log`), 'a')
  const child = startProgram(
    process.execPath,
    ['--enable-source-maps', join(ROOT, 'server/dist/main.js')],
    {
      env: {
        ...env,
        UVANTA_PORT: String(own),
        UVANTA_PUBLIC_URL: env.UVANTA_PUBLIC_URL ?? `http://127.0.0.1:${port}`,
        UVANTA_DRAIN_MS: String(DRAIN_MS),
      },
      stdio: ['ignore', log, log],
      pidFile: pidFile(installation, number),
    },
  )
  await within(300, `process ${number} of the application did not start`, () => {
    if (hasEnded(child))
      throw new LauncherError(
        `process ${number} of the application ended; see ${clusterHome(data)}/app${number}.log`,
      )
    return answersAt(own, '/readyz')
  })
  return child
}

/** As long as the proxy needs to notice that a process takes nothing more. */
const DRAIN_MS = 2_000

/**
 * @param {Installation} installation
 * @param {Map<number, import('node:child_process').ChildProcess>} processes
 */
async function roll(installation, processes) {
  for (const number of PROCESSES) {
    await stopProgram(processes.get(number))
    processes.set(number, await startProcess(installation, number))
    // Before the next one goes, the proxy has to know that this one is back.
    await pause(DRAIN_MS)
    step(`Process ${number} runs the new version`)
  }
}

/**
 * @param {number} seconds
 * @param {string} otherwise
 * @param {() => Promise<boolean> | boolean} holds
 */
async function within(seconds, otherwise, holds) {
  const until = Date.now() + seconds * 1_000
  while (Date.now() < until) {
    if (await holds()) return
    await pause(200)
  }
  throw new LauncherError(otherwise)
}

/**
 * One node is written to; the next one is when it is gone. What is under way there is cut off, not left hanging.
 * @param {Installation} installation
 */
async function startProxy(installation) {
  const { data, env, port } = installation
  const home = clusterHome(data)
  const ports = portsOf(installation)
  const settings = join(home, 'haproxy.cfg')
  const nodes = NODES.map(
    (node) =>
      `  server node${node} 127.0.0.1:${ports.sql(node)} check port ${ports.sql(node)}${node === 1 ? '' : ' backup'}`,
  )
  const processes = PROCESSES.map(
    (number) => `  server app${number} 127.0.0.1:${ports.application(number)} check`,
  )
  rmSync(settings, { force: true })
  writeFileSync(
    settings,
    `global
  external-check
  insecure-fork-wanted

defaults
  timeout connect 2s
  timeout client 10m
  timeout server 10m

listen database
  mode tcp
  bind 127.0.0.1:${ports.databaseProxy}
  option external-check
  external-check path "/usr/bin:/bin"
  external-check command ${join(ROOT, 'deploy/node-ready.sh')}
  default-server inter 1s fall 2 rise 2 on-marked-down shutdown-sessions
${nodes.join('\n')}

listen application
  mode http
  bind 127.0.0.1:${port}
  option forwardfor
  option httpchk GET /readyz
  option redispatch 1
  retries 2
  default-server inter 500ms fall 2 rise 1
${processes.join('\n')}
`,
  )
  const log = openSync(join(home, 'haproxy.log'), 'a')
  const child = startProgram('haproxy', ['-f', settings], { env, stdio: ['ignore', log, log] })
  // It takes the nodes for ready at first, and asks them once a second.
  await pause(2_000)
  return child
}

import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { execa } from 'execa'
import { COMMON, logOfChanges, sql, unprivileged } from '../database.js'
import { LauncherError } from '../output.js'
import { hasEnded, startProgram } from '../processes.js'
import { socketOf, textOf } from '../settings.js'

/** @typedef {import('../settings.js').Installation} Installation */

export const NODES = [1, 2, 3]
const PROVIDER = '/usr/lib/galera/libgalera_smm.so'

/** @param {string} data */
export const clusterHome = (data) => join(data, 'cluster')
/** @param {string} data @param {number} node */
export const nodeHome = (data, node) => join(clusterHome(data), `node${node}`)

/** Whether a directory of data holds a cluster. @param {string} data */
export const isCluster = (data) => existsSync(join(nodeHome(data, 1), 'data'))

/**
 * The ports of a cluster, from one on.
 * @param {Installation} installation
 */
export function portsOf({ env }) {
  const first = Number(env.UVANTA_CLUSTER_PORT ?? 4900)
  return {
    sql: (/** @type {number} */ node) => first + node,
    group: (/** @type {number} */ node) => first + 10 + node,
    increments: (/** @type {number} */ node) => first + 20 + node,
    whole: (/** @type {number} */ node) => first + 30 + node,
    databaseProxy: first + 40,
    application: (/** @type {number} */ process) => first + 50 + process,
  }
}

/** @param {Installation} installation @param {number} node */
export const nodeDatabase = ({ data, env }, node) => ({
  socket: socketOf(nodeHome(data, node)),
  env,
})

/**
 * A line of a node’s status, or '' where it does not answer.
 * @param {Installation} installation
 * @param {number} node
 * @param {string} name
 */
export const statusOf = (installation, node, name) =>
  sql(nodeDatabase(installation, node), `SHOW STATUS LIKE '${name}'`).then(
    (line) => line.split('\t')[1] ?? '',
    () => '',
  )

/** Whether a node has all data. @param {Installation} installation @param {number} node */
export const isSynced = async (installation, node) =>
  (await statusOf(installation, node, 'wsrep_local_state_comment')) === 'Synced'

/**
 * The programs by which a node that was away gets all data from another; only they are taken from their package.
 * @param {Installation} installation
 * @returns {Promise<Installation>} with them in its path
 */
export async function withTransferPrograms(installation) {
  const home = join(clusterHome(installation.data), 'programs')
  const transfer = join(home, 'usr/bin/wsrep_sst_rsync')
  if (!existsSync(transfer)) {
    mkdirSync(home, { recursive: true })
    const { failed } = await execa(
      'sh',
      ['-c', 'apt-get download mariadb-server && dpkg -x mariadb-server_*.deb .'],
      { cwd: home, env: installation.env, reject: false, stdio: 'ignore' },
    )
    if (failed)
      throw new LauncherError(
        'the package mariadb-server cannot be fetched; it is needed to run three nodes',
      )
    // Where nodes run as root, rsync would write as nobody, who may not.
    const script = readFileSync(transfer, 'utf8')
    writeFileSync(
      transfer,
      script.replace(
        'use chroot = no\n',
        'use chroot = no\n$([ "$(id -u)" != 0 ] || printf "uid = 0\\ngid = 0")\n',
      ),
    )
  }
  const PATH = `${join(home, 'usr/bin')}:${installation.env.PATH}`
  return { ...installation, env: { ...installation.env, PATH } }
}

/**
 * What a node is started with, whether it joins or only says how far it has come.
 * @param {string} home
 */
const ofNode = (home) => [
  `--datadir=${home}/data`,
  `--tmpdir=${home}/tmp`,
  '--wsrep-on=ON',
  `--wsrep-provider=${PROVIDER}`,
  '--binlog-format=ROW',
]

/**
 * How far a node that is down has come in the cluster’s order, as UUID:NUMBER, read off its data; '' for a new one.
 * @param {Installation} installation
 * @param {number} node
 */
async function placeOf({ data, env }, node) {
  const home = nodeHome(data, node)
  if (!existsSync(join(home, 'data', 'grastate.dat'))) return ''
  const { all } = await execa(
    'mariadbd',
    [
      ...COMMON,
      ...unprivileged(home, env),
      ...ofNode(home),
      '--wsrep-cluster-address=gcomm://',
      '--wsrep-recover',
      '--skip-networking',
      `--socket=${home}/recover.sock`,
      `--pid-file=${home}/recover.pid`,
    ],
    { env, reject: false, all: true },
  )
  return [...all.matchAll(/Recovered position: *(\S+)/g)].at(-1)?.[1] ?? ''
}

/**
 * The node that has come furthest: whatever another one lacks it gets from there.
 * @param {Installation} installation
 */
export async function newestNode(installation) {
  let [best, most] = [1, -1]
  for (const node of NODES) {
    const number = Number((await placeOf(installation, node)).split(':')[1] ?? -1)
    if (number > most) [best, most] = [node, number]
  }
  return best
}

/** Lets a node begin the cluster. @param {string} data @param {number} node */
export function allowBegin(data, node) {
  const file = join(nodeHome(data, node), 'data', 'grastate.dat')
  if (!existsSync(file)) return
  const state = readFileSync(file, 'utf8')
  writeFileSync(file, state.replace(/^safe_to_bootstrap: .*/m, 'safe_to_bootstrap: 1'))
}

/** How soon a node is taken for dead that does not answer. */
const TIMES = 'evs.suspect_timeout=PT3S;evs.inactive_timeout=PT6S;evs.inactive_check_period=PT0.5S'

/**
 * Starts a node.
 * @param {Installation} installation
 * @param {number} node
 * @param {string[]} options the first one of all has --wsrep-new-cluster
 * @param {boolean} outlives it goes on after the command
 */
export async function startNode(installation, node, options = [], outlives = false) {
  const { data, env } = installation
  const home = nodeHome(data, node)
  const ports = portsOf(installation)
  const members = NODES.map((member) => `127.0.0.1:${ports.group(member)}`).join(',')
  // From its place on the rest is sent, not all of it.
  const place = options.length > 0 ? '' : await placeOf(installation, node)
  const provider = [
    `gmcast.listen_addr=tcp://127.0.0.1:${ports.group(node)}`,
    `ist.recv_addr=127.0.0.1:${ports.increments(node)}`,
    'gcache.size=128M',
    TIMES,
  ].join(';')
  return startProgram(
    'mariadbd',
    [
      ...COMMON,
      ...unprivileged(home, env),
      ...ofNode(home),
      `--port=${ports.sql(node)}`,
      `--socket=${socketOf(home)}`,
      `--pid-file=${home}/pid`,
      `--log-error=${home}/error.log`,
      `--init-file=${home}/init.sql`,
      '--innodb-autoinc-lock-mode=2',
      ...logOfChanges(home),
      // The same entry has the same place in every node’s log of changes.
      ...[
        '--log-slave-updates',
        '--server-id=1',
        '--wsrep-gtid-mode=ON',
        '--wsrep-gtid-domain-id=1',
      ],
      `--gtid-domain-id=${10 + node}`,
      '--wsrep-cluster-name=uvanta',
      `--wsrep-cluster-address=gcomm://${members}`,
      `--wsrep-node-name=node${node}`,
      `--wsrep-node-address=127.0.0.1:${ports.group(node)}`,
      `--wsrep-provider-options=${provider}`,
      '--wsrep-sst-method=rsync',
      `--wsrep-sst-receive-address=127.0.0.1:${ports.whole(node)}`,
      ...(place ? [`--wsrep-start-position=${place}`] : []),
      ...options,
    ],
    { env, pidFile: join(home, 'started.pid'), outlives },
  )
}

const PATIENCE_MS = 120_000

/**
 * Waits until a node has all data.
 * @param {Installation} installation
 * @param {number} node
 * @param {import('node:child_process').ChildProcess} child
 * @throws {LauncherError} it ended, or is not in step within two minutes
 */
export async function untilSynced(installation, node, child) {
  const until = Date.now() + PATIENCE_MS
  while (Date.now() < until && !hasEnded(child)) {
    if (await isSynced(installation, node)) return
    await pause(500)
  }
  const log = join(nodeHome(installation.data, node), 'error.log')
  process.stderr.write(`${textOf(log).split('\n').slice(-5).join('\n')}\n`)
  throw new LauncherError(`node ${node} did not start, or did not catch up; see ${log}`)
}

import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { nodeAlone, syncedNode } from './cluster/attach.js'
import { isCluster, isSynced, nodeDatabase, NODES, portsOf } from './cluster/nodes.js'
import {
  answers,
  logOfChanges,
  makeData,
  POOL_SIZE,
  portOf,
  startDatabase,
  usersOf,
} from './database.js'
import { kindOf } from './kind.js'
import { takeLock, whoWorksIn } from './lock.js'
import { LauncherError, step } from './output.js'
import { freePort } from './ports.js'
import { endOrphans } from './processes.js'
import { canInstall, DATABASE_PROGRAMS, needPrograms } from './programs.js'
import { secret } from './secrets.js'
import { asOwner, server } from './server.js'
import { socketOf, textOf } from './settings.js'

/** @typedef {import('./settings.js').Installation} Installation */
/** @typedef {import('./database.js').Database} Database */

export const databaseHome = (/** @type {Installation} */ { data }) => join(data, 'db')

/** A restore that was broken off leaves half a database: nothing runs on that. @param {Installation} installation */
export function needWhole({ data, backups }) {
  const broken = join(data, 'restoring')
  if (existsSync(broken))
    throw new LauncherError(
      `a restore was broken off. Run it again:  ./uvanta restore ${textOf(broken)}\n        or put back what was there before it: the newest before-restore file in ${backups}`,
    )
}

/** Refuses where no record is, so that none is made by whoever asks for one. @param {Installation} installation */
export function needData(installation) {
  const { data } = installation
  if (!existsSync(join(databaseHome(installation), 'data')) && !isCluster(data))
    throw new LauncherError(
      `there is no Uvanta in ${data}. Name its directory: ./uvanta --data DIRECTORY … (as /var/lib/uvanta)`,
    )
}

/**
 * What the programs of the server need to reach the database.
 * @param {Installation} installation
 * @param {number} port
 * @returns {Installation}
 */
export const reaching = (installation, port) => ({
  ...installation,
  env: {
    ...installation.env,
    UVANTA_DB_PORT: String(port),
    UVANTA_DB_PASSWORD: secret(installation, 'db-password'),
    UVANTA_SESSION_SECRET: secret(installation, 'session'),
    UVANTA_KIND: kindOf(installation.data),
  },
})

/**
 * Takes the directory for this command and starts its database, which ends with the command.
 * @param {Installation} installation
 * @param {import('./lock.js').Holder['as']} as
 * @param {() => Promise<unknown>} beside what else has to be there, done meanwhile
 */
export async function startOwn(installation, as, beside = async () => undefined) {
  const { data, env } = installation
  await takeLock(data, as)
  await endOrphans(data)
  const home = databaseHome(installation)
  const making = async () => {
    await needPrograms(installation, DATABASE_PROGRAMS)
    if (!existsSync(join(home, 'data'))) step('Creating the database directory')
    await makeData(home, env)
  }
  // What cannot be installed is said at once.
  if (!canInstall(env)) await needPrograms(installation, DATABASE_PROGRAMS)
  const [made, besides] = await Promise.allSettled([making(), beside()])
  for (const done of [made, besides]) if (done.status === 'rejected') throw done.reason
  step('Starting the database')
  const port = await freePort(installation.databasePort)
  const database = await startDatabase(home, port, env, {
    users: usersOf(installation),
    options: [POOL_SIZE, '--innodb-log-file-size=256M', ...logOfChanges(home)],
  })
  return { installation: reaching(installation, port), database }
}

/**
 * A database that is open for a command.
 * @typedef {object} Open
 * @property {Installation} installation with what programs of the server need
 * @property {Database} database
 * @property {boolean} isServing Uvanta runs on it
 * @property {LogSource[]} logs whose logs of changes there are
 */

/** @typedef {{ name: string, database: Database }} LogSource `name` is '' where there is one database alone */

/**
 * Opens the database of a record: that of a running Uvanta, or else one that this command starts.
 * @param {Installation} installation
 * @returns {Promise<Open>}
 */
export async function openRecord(installation) {
  needData(installation)
  return openDatabase(installation)
}

/**
 * As `openRecord`, where there may be no record yet.
 * @param {Installation} installation
 * @returns {Promise<Open>}
 */
export async function openDatabase(installation) {
  const { data, env } = installation
  const holder = await whoWorksIn(data)
  if (holder?.as === 'command')
    throw new LauncherError(
      `another command works in ${data} (process ${holder.pid}). Wait for it, then try again.`,
    )
  const isServing = holder !== null
  if (isCluster(data)) return openCluster(installation, isServing)
  if (!isServing) {
    const own = await startOwn(installation, 'command')
    return { ...own, isServing, logs: [{ name: '', database: own.database }] }
  }
  const database = { socket: socketOf(databaseHome(installation)), env }
  if (!(await answers(database)))
    throw new LauncherError('Uvanta runs, but its database does not answer.')
  const serving = reaching(installation, await portOf(database))
  return { installation: serving, database, isServing, logs: [{ name: '', database }] }
}

/**
 * @param {Installation} given
 * @param {boolean} isServing
 * @returns {Promise<Open>}
 */
async function openCluster(given, isServing) {
  if (!isServing) {
    const { installation, node, port, database } = await nodeAlone(given)
    const logs = [{ name: `node${node}`, database }]
    return { installation: reaching(installation, port), database, isServing, logs }
  }
  const database = nodeDatabase(given, await syncedNode(given))
  const logs = []
  for (const node of NODES)
    if (await isSynced(given, node))
      logs.push({ name: `node${node}`, database: nodeDatabase(given, node) })
  // What is written goes where the application writes, too.
  return { installation: reaching(given, portsOf(given).databaseProxy), database, isServing, logs }
}

/**
 * Runs a command of the server on the record, with its schema up to date.
 * @template T
 * @param {Installation} installation
 * @param {(installation: Installation) => Promise<T>} work
 * @returns {Promise<T>}
 */
export async function withRecord(installation, work) {
  const open = await openRecord(installation)
  if (!open.isServing) await server(asOwner(open.installation), ['migrate'])
  return work(open.installation)
}

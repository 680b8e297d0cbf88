import { existsSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { startApplication } from '../application.js'
import { beginBuild } from '../build.js'
import { atEnd } from '../cleanup.js'
import { isBlank, sql, launch } from '../database.js'
import { decideKind, kindOf, loadingOf, sitesOf } from '../kind.js'
import { LauncherError, say, step } from '../output.js'
import { ROOT } from '../packages.js'
import { freePort } from '../ports.js'
import { startProgram } from '../processes.js'
import { isCluster } from '../cluster/nodes.js'
import { needWhole, startOwn } from '../running.js'
import { asOwner, server } from '../server.js'
import { supervise } from '../supervise.js'

/** @typedef {import('../settings.js').Installation} Installation */
/** @typedef {import('../database.js').Database} Database */

/**
 * Sets up what is missing, and runs Uvanta until it is stopped.
 * @param {Installation} given
 * @param {{ empty?: boolean }} options
 */
export async function start(given, { empty }) {
  const { build, installation, database, kind } = await prepare(given, 'start', empty ?? false)
  await build.pages
  const port = await portFor(installation, kind)
  const gauge = kind === 'demo' ? await gaugeOf(installation) : null
  const serving = gauge ? gauge.installation : installation
  const application = {
    name: 'application',
    child: await startApplication(serving, port),
    start: () => startApplication(serving, port),
  }
  const parts = [
    {
      name: 'database',
      child: database.child,
      start: () => launch(database),
    },
    application,
    ...(gauge ? [gauge] : []),
  ]
  atEnd(async () => {
    for (const file of ['app.pid', 'gauge.pid']) rmSync(join(given.data, file), { force: true })
  })
  writeFileSync(join(given.data, 'port'), String(port))
  await sayWhere(port, kind, database)
  return supervise(parts)
}

/**
 * The database with its schema, the demo and its visits of today, while the pages are being built.
 * @param {Installation} given
 * @param {'start' | 'dev'} as
 * @param {boolean} empty a utility of its own
 */
export async function prepare(given, as, empty) {
  needWhole(given)
  if (isCluster(given.data))
    throw new LauncherError(`a cluster is in ${given.data}. Start it with ./uvanta cluster.`)
  /** @type {import('../build.js').Build} */
  let build = { library: Promise.resolve(), pages: Promise.resolve() }
  const { installation, database } = await startOwn(given, as, async () => {
    const kind = kindOf(given.data) || (empty ? 'own' : 'demo')
    build = await beginBuild({ ...given, env: { ...given.env, UVANTA_KIND: kind } })
  })
  const kind = await decideKind(given.data, database, empty ? 'own' : 'demo')
  await build.library
  /** @type {Installation} */
  const ready = {
    ...installation,
    env: {
      ...installation.env,
      UVANTA_KIND: kind,
      // Whoever looks around in the demo may set a second factor up, and need not.
      ...(kind === 'demo'
        ? { UVANTA_SECOND_FACTOR: given.env.UVANTA_SECOND_FACTOR ?? 'offered' }
        : {}),
    },
  }
  await makeReady(ready, database, kind)
  return { build, installation: ready, database, kind }
}

/**
 * @param {Installation} installation
 * @param {Database} database
 * @param {import('../kind.js').Kind} kind
 */
async function makeReady(installation, database, kind) {
  const { data } = installation
  if (existsSync(loadingOf(data))) {
    step('The demo was loaded in part only; loading it anew')
    await sql(database, 'DROP DATABASE uvanta; CREATE DATABASE uvanta')
    rmSync(loadingOf(data))
  }
  const words = ['ready', sitesOf(data), ...(kind === 'own' ? ['--empty'] : [])]
  // What is made anew when the power goes need not wait for the disk.
  const isNew = await isBlank(database)
  if (isNew)
    await sql(database, 'SET GLOBAL innodb_flush_log_at_trx_commit = 0, GLOBAL sync_binlog = 0')
  await server(asOwner(installation), words)
  if (isNew)
    await sql(
      database,
      'SET GLOBAL innodb_flush_log_at_trx_commit = 1, GLOBAL sync_binlog = 1; FLUSH LOGS',
    )
}

/**
 * The wanted port, or in the demo the next free one.
 * @param {Installation} installation
 * @param {import('../kind.js').Kind} kind
 */
export async function portFor({ port: wanted }, kind) {
  const port = await freePort(wanted)
  if (port === wanted) return port
  // The proxy and the addresses on certificates expect this port.
  if (kind === 'own')
    throw new LauncherError(
      `port ${wanted} is in use. Free it, or set UVANTA_PORT and change the proxy.`,
    )
  step(`Port ${wanted} is in use; taking ${port}`)
  return port
}

/**
 * Starts a program that plays a test gauge at the demo’s equipment (docs/gauge-link.md).
 * @param {Installation} installation
 */
export async function gaugeOf(installation) {
  const { data, env } = installation
  step('Starting the simulated test gauge')
  const port = await freePort(Number(env.UVANTA_GAUGE_WANTED_PORT ?? 4890))
  /** @type {Installation} */
  const serving = {
    ...installation,
    env: {
      ...env,
      UVANTA_GAUGE_PORT: String(port),
      UVANTA_GAUGE_URL: `ws://127.0.0.1:${port}`,
    },
  }
  const begin = () =>
    startProgram(process.execPath, ['--enable-source-maps', join(ROOT, 'standins/dist/gauge.js')], {
      env: serving.env,
      pidFile: join(data, 'gauge.pid'),
    })
  return {
    name: 'test gauge',
    installation: serving,
    child: begin(),
    start: async () => begin(),
  }
}

/**
 * @param {number} port
 * @param {import('../kind.js').Kind} kind
 * @param {Database} database
 */
async function sayWhere(port, kind, database) {
  say()
  say(`  Uvanta is at  http://127.0.0.1:${port}`)
  say()
  if (kind === 'demo') {
    say('  Demo sign-ins, all with the password  larkhaven-demo')
    say('    odda   technician        sula   planner')
    say('    teo    technician        ivo    reviewer')
    say('    jori   trainee           petra  administrator')
    say()
  } else if ((await sql(database, 'SELECT COUNT(*) FROM uvanta.person')) === '0') {
    say('  Nobody can sign in yet. In another window:  ./uvanta admin NAME')
    say()
  }
  say('  Ctrl-C stops it.')
}

import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir, totalmem, userInfo } from 'node:os'
import { dirname, join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { execa, execaSync } from 'execa'
import { shortOfSpace } from './disk.js'
import { LauncherError, step } from './output.js'
import { hasEnded, startProgram, stopProgram } from './processes.js'
import { secret } from './secrets.js'
import { socketOf, textOf } from './settings.js'

/** @typedef {import('./settings.js').Installation} Installation */

/**
 * A MariaDB that runs.
 * @typedef {object} Database
 * @property {string} socket
 * @property {NodeJS.ProcessEnv} env
 */

/**
 * A MariaDB that this command started.
 * @typedef {Database & { home: string, child: import('node:child_process').ChildProcess,
 *   words: string[] }} OwnDatabase
 */

/** Statements for the client of MariaDB, as its administrator. @param {Database} database @param {string} statements */
export async function sql({ socket, env }, statements) {
  const { stdout, stderr, failed } = await execa(
    'mariadb',
    [
      '--no-defaults',
      `--socket=${socket}`,
      '--skip-column-names',
      '--batch',
      '--execute',
      statements,
    ],
    { env, reject: false },
  )
  if (failed)
    throw new LauncherError(`the database says: ${stderr.trim().split('\n').at(-1) ?? 'nothing'}`)
  return stdout
}

/** @param {Database} database */
export const portOf = async (database) => Number(await sql(database, 'SELECT @@port'))

/** @param {Database} database */
export async function answers({ socket, env }) {
  const { failed } = await execa(
    'mariadb-admin',
    ['--no-defaults', '--connect-timeout=1', `--socket=${socket}`, 'ping'],
    { env, reject: false, timeout: 2_000 },
  )
  return !failed
}

/**
 * Who the database runs as: started by root, somebody who owns nothing but its directory.
 * @param {string} home directory of the database, in that of the data
 * @param {NodeJS.ProcessEnv} env
 * @returns {string[]} options of mariadbd
 */
export function unprivileged(home, env) {
  if (process.getuid?.() !== 0) return []
  mkdirSync(home, { recursive: true })
  const idOf = (/** @type {string} */ user, /** @type {string} */ flag) =>
    Number(execaSync('id', [flag, user], { reject: false }).stdout)
  const user = idOf('mysql', '-u') ? 'mysql' : 'nobody'
  const [uid, gid] = [idOf(user, '-u'), idOf(user, '-g')]
  chownSync(home, uid, gid)
  // It may pass through the directory of the data, and see nothing there.
  for (
    let passed = dirname(home);
    passed.startsWith(env.UVANTA_DATA ?? home);
    passed = dirname(passed)
  )
    chmodSync(passed, statSync(passed).mode | 0o001)
  const reaches = execaSync(
    'setpriv',
    [`--reuid=${uid}`, `--regid=${gid}`, '--clear-groups', 'test', '-x', home],
    { env, reject: false },
  )
  if (reaches.failed) {
    chownSync(home, 0, 0)
    step(
      `The database runs as root: ${user} cannot reach ${home}. Put UVANTA_DATA where everybody may pass, as under /var/lib`,
    )
    return ['--user=root']
  }
  execaSync('chown', ['-R', `${uid}:${gid}`, home])
  return [`--user=${user}`]
}

/**
 * Makes an empty database in `home`/data, whole or not at all.
 * @param {string} home
 * @param {NodeJS.ProcessEnv} env
 */
export async function makeData(home, env) {
  // A directory of its own: a database that starts clears temporary tables away, whoever’s they are.
  for (const name of ['tmp', 'binlog']) mkdirSync(join(home, name), { recursive: true })
  if (existsSync(join(home, 'data'))) return
  const runsAs = unprivileged(home, env)
  rmSync(join(home, 'data.new'), { recursive: true, force: true })
  // By a name without spaces, which its program does not take.
  const plain = mkdtempSync(join(tmpdir(), 'uvanta-'))
  chmodSync(plain, 0o711)
  symlinkSync(home, join(plain, 'home'))
  const log = join(home, 'install.log')
  const words = [
    '--no-defaults',
    ...runsAs,
    '--basedir=/usr',
    `--datadir=${plain}/home/data.new`,
    `--tmpdir=${plain}/home/tmp`,
    '--auth-root-authentication-method=socket',
    ...(process.getuid?.() === 0 ? [] : [`--auth-root-socket-user=${userInfo().username}`]),
    '--skip-test-db',
    '--skip-name-resolve',
    '--innodb-use-native-aio=OFF',
  ]
  const to = { file: log }
  const { failed } = await execa('mariadb-install-db', words, {
    env,
    reject: false,
    stdout: to,
    stderr: to,
  })
  rmSync(plain, { recursive: true })
  if (failed)
    throw new LauncherError(`creating the database failed; see ${log}.${shortOfSpace(home)}`)
  renameSync(join(home, 'data.new'), join(home, 'data'))
}

/** Options that every database of Uvanta has. */
export const COMMON = [
  '--no-defaults',
  '--basedir=/usr',
  '--bind-address=127.0.0.1',
  '--skip-name-resolve',
  // Under disk load the kernel’s asynchronous I/O can stall the start-up for minutes.
  '--innodb-use-native-aio=OFF',
  '--character-set-server=utf8mb4',
  '--collation-server=utf8mb4_uca1400_ai_ci',
  '--default-time-zone=+00:00',
  '--innodb-ft-min-token-size=1',
  '--innodb-ft-enable-stopword=0',
  '--max-allowed-packet=64M',
]

/** Options of a log of changes in a directory; two weeks are kept. @param {string} home */
export const logOfChanges = (home) => [
  `--log-bin=${home}/binlog/log`,
  '--binlog-format=ROW',
  '--binlog-do-db=uvanta',
  '--sync-binlog=1',
  '--expire-logs-days=14',
  '--log-bin-trust-function-creators=ON',
]

/**
 * Starts a database on the data in `home`, and waits until it answers.
 * @param {string} home
 * @param {number} port
 * @param {NodeJS.ProcessEnv} env
 * @param {{ users: string, options: string[] }} how statements that run first, options of mariadbd
 * @returns {Promise<OwnDatabase>}
 */
export async function startDatabase(home, port, env, { users, options }) {
  const socket = socketOf(home)
  const first = join(home, 'init.sql')
  rmSync(first, { force: true })
  writeFileSync(first, `CREATE DATABASE IF NOT EXISTS uvanta;\n${users}`, { mode: 0o600 })
  const runsAs = unprivileged(home, env)
  const words = [
    ...COMMON,
    ...runsAs,
    `--datadir=${home}/data`,
    `--tmpdir=${home}/tmp`,
    `--port=${port}`,
    `--socket=${socket}`,
    `--pid-file=${home}/mariadbd.pid`,
    `--log-error=${home}/error.log`,
    `--init-file=${first}`,
    ...options,
  ]
  const database = { home, socket, env, words }
  return { ...database, child: await launch(database) }
}

/**
 * Starts a database on its data, and waits until it answers.
 * @param {Omit<OwnDatabase, 'child'>} database
 */
export async function launch(database) {
  const { home, words, env } = database
  // A start that is stuck is ended; a second one gets through.
  for (let attempt = 1; attempt <= 4; attempt++) {
    const child = startProgram('mariadbd', words, { env })
    for (let n = 0; n < 40 && !hasEnded(child); n++) {
      if (await answers(database)) return child
      await pause(200)
    }
    await stopProgram(child, 'SIGKILL')
    step(`The database did not answer; starting it again (${attempt})`)
  }
  process.stderr.write(`${textOf(join(home, 'error.log')).split('\n').slice(-5).join('\n')}\n`)
  throw new LauncherError(
    `the database did not start; see ${join(home, 'error.log')}.${shortOfSpace(home)}`,
  )
}

/** A quarter of the machine’s memory is for the pages of the database. */
export const POOL_SIZE = `--innodb-buffer-pool-size=${Math.round(totalmem() / 4 / 2 ** 20)}M`

/**
 * Who serves, and the owner of the schema, who gives that one its rights (server/store/rights.ts).
 * @param {Installation} installation
 */
export function usersOf(installation) {
  /** @type {[name: string, password: string][]} */
  const users = [
    ['uvanta', secret(installation, 'db-password')],
    ['uvanta_owner', secret(installation, 'db-owner-password')],
  ]
  const lines = users.flatMap(([name, password]) => [
    `CREATE USER IF NOT EXISTS '${name}'@'127.0.0.1';`,
    `ALTER USER '${name}'@'127.0.0.1' IDENTIFIED BY '${password}';`,
  ])
  return [
    ...lines,
    "GRANT ALL ON uvanta.* TO 'uvanta_owner'@'127.0.0.1' WITH GRANT OPTION;",
    '',
  ].join('\n')
}

/** Whether there is no table yet. @param {Database} database */
export const isBlank = async (database) =>
  (await sql(
    database,
    "SELECT COUNT(*) FROM information_schema.tables WHERE table_schema = 'uvanta'",
  )) === '0'

import { spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { execa } from 'execa'
import {
  copyFileSync,
  createReadStream,
  existsSync,
  mkdirSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { sql } from '../database.js'
import { LauncherError } from '../output.js'
import { server } from '../server.js'
import { textOf } from '../settings.js'
import { temporaryDirectory } from '../temporary.js'
import { hashOf, linesOf } from './dump.js'
import { dayAndTime } from './names.js'
import { feed } from './scratch.js'

/** @typedef {import('../settings.js').Installation} Installation */
/** @typedef {import('../database.js').Database} Database */

/** Where the log of changes is copied to, unless another place is named. @param {Installation} installation */
export const usualChanges = ({ backups }) => join(backups, 'changes')

const LOG = /^log\.\d+$/
const historyFile = (/** @type {Installation} */ { data }) => join(data, 'history')

/**
 * What a log of changes follows: a database that was put back begins another one.
 * @param {Installation} installation
 */
export function historyOf(installation) {
  const file = historyFile(installation)
  // Until December 2026 it lay with the database.
  const earlier = join(installation.data, 'db', 'history')
  if (!existsSync(file)) writeFileSync(file, existsSync(earlier) ? textOf(earlier) : randomUUID())
  return textOf(file)
}

/**
 * Begins another log of changes: what was logged before is no part of it.
 * @param {Installation} installation
 * @param {Database} database
 */
export async function beginHistory(installation, database) {
  writeFileSync(historyFile(installation), randomUUID())
  await sql(database, 'FLUSH BINARY LOGS')
  // Not RESET MASTER, which a node of a cluster refuses: places go on, and a backup says where its log begins.
  await sql(database, `PURGE BINARY LOGS TO '${await openLog(database)}'`)
}

/** The file of the log of changes that is written to. @param {Database} database */
const openLog = async (database) => (await sql(database, 'SHOW MASTER STATUS')).split('\t')[0] ?? ''

/**
 * Copies what is not there yet of the log of changes, each file whole or not at all, and reads it back.
 * @param {Installation} installation
 * @param {import('../running.js').LogSource[]} sources
 * @param {string} directory
 * @param {string} passphrase '' for plain files
 */
export async function saveChanges(installation, sources, directory, passphrase = '') {
  for (const source of sources) await saveLog(installation, source, directory, passphrase)
}

/**
 * @param {Installation} installation
 * @param {import('../running.js').LogSource} source
 * @param {string} directory
 * @param {string} passphrase
 */
async function saveLog(installation, { name: source, database }, directory, passphrase) {
  const to = join(directory, historyOf(installation), source)
  mkdirSync(to, { recursive: true, mode: 0o700 })
  await sql(database, 'FLUSH BINARY LOGS')
  const open = await openLog(database)
  const logs = (await sql(database, 'SELECT @@log_bin_basename')).replace(/\/log$/, '')
  for (const name of readdirSync(logs).filter((file) => LOG.test(file) && file !== open)) {
    const saved = join(to, name)
    if (existsSync(saved) || existsSync(`${saved}.age`)) continue
    const from = join(logs, name)
    const part = `${saved}.part`
    rmSync(part, { force: true })
    if (passphrase) {
      const read = join(temporaryDirectory(installation.backups), name)
      await server(installation, ['encrypt', from, part], passphrase)
      await server(installation, ['decrypt', part, read], passphrase)
      await needSame(from, read, saved)
      rmSync(read)
    } else {
      copyFileSync(from, part)
      await needSame(from, part, saved)
    }
    renameSync(part, passphrase ? `${saved}.age` : saved)
  }
}

/** @param {string} one @param {string} other @param {string} name */
async function needSame(one, other, name) {
  if ((await hashOf(createReadStream(one))) !== (await hashOf(createReadStream(other))))
    throw new LauncherError(`${name} read back differently; look at the disk, then try again.`)
}

/**
 * The logs of changes that follow a backup, opened: one, or that of each node of a cluster.
 * @param {Installation} installation
 * @param {string[]} places directories that may hold some of their files
 * @param {string} history
 * @param {() => Promise<string>} passphrase
 * @returns {Promise<string[][]>} the files of each log, in their order
 */
export async function collectChanges(installation, places, history, passphrase) {
  const directory = temporaryDirectory(installation.backups)
  for (const place of places.map((p) => join(p, history)).filter((p) => existsSync(p)))
    for (const name of readdirSync(place, { recursive: true, encoding: 'utf8' })) {
      const plain = name.replace(/\.age$/, '')
      if (!LOG.test(basename(plain))) continue
      const [from, to] = [join(place, name), join(directory, plain)]
      mkdirSync(dirname(to), { recursive: true })
      if (plain === name) copyFileSync(from, to)
      else
        await server(installation, ['decrypt', from, to], await passphrase()).catch(() => {
          throw new LauncherError(`${from} does not open with this passphrase, or is damaged.`)
        })
    }
  const files = readdirSync(directory, { recursive: true, encoding: 'utf8' })
    .filter((name) => LOG.test(basename(name)))
    .sort()
    .map((name) => join(directory, name))
  const logs = [...new Set(files.map((file) => dirname(file)))].map((home) =>
    files.filter((file) => dirname(file) === home),
  )
  const whole = logs.filter(isWithoutGap)
  if (whole.length === 0)
    throw new LauncherError(
      `the log of changes is not there, or a file of it is missing, in ${places.join(', ')}; nothing was changed.`,
    )
  return whole
}

/** @param {string[]} log */
function isWithoutGap(log) {
  const numbers = log.map((file) => Number(file.slice(file.lastIndexOf('.') + 1)))
  return numbers.every((number, n) => number === (numbers[0] ?? 0) + n)
}

/** What everybody writes has one of these domains: of a single database, and of a cluster. Others are a node’s own. */
const SHARED = ['0', '1']

const isShared = (/** @type {string} */ place) => SHARED.includes(place.split('-')[0] ?? '')

/**
 * The words of mariadb-binlog for what was changed after a position up to a moment.
 * @param {string[]} log
 * @param {string} gtid
 * @param {Date | null} until null for all that is there
 * @param {NodeJS.ProcessEnv} env
 */
async function partOf(log, gtid, until, env) {
  // It wants to know a place of every domain with which the log begins.
  const first = await execa('mariadb-binlog', ['--no-defaults', ...log.slice(0, 1)], {
    env,
    reject: false,
  })
  const list = /Gtid list \[([^\]]*)\]/.exec(first.stdout)?.[1] ?? ''
  const own = list.split(/[\s,]+/).filter((place) => place && !isShared(place))
  const places = [...gtid.split(',').filter((place) => place && isShared(place)), ...own]
  return [
    '--no-defaults',
    ...(places.length > 0 ? [`--start-position=${places.join(',')}`] : []),
    `--do-domain-ids=${SHARED.join(',')}`,
    ...(until ? [`--stop-datetime=${dayAndTime(until)}`] : []),
    '--database=uvanta',
    ...log,
  ]
}

/**
 * The log that goes furthest up to a moment. A node that was down misses what came meanwhile.
 * @param {string[][]} logs
 * @param {string} gtid
 * @param {Date} until
 * @param {NodeJS.ProcessEnv} env
 */
export async function furthestLog(logs, gtid, until, env) {
  if (logs.length < 2) return logs[0] ?? []
  /** @type {{ log: string[], last: number }[]} */
  const reach = []
  for (const log of logs) {
    const reading = spawn('mariadb-binlog', await partOf(log, gtid, until, env), {
      env: { ...env, TZ: 'UTC' },
      stdio: ['ignore', 'pipe', 'ignore'],
    })
    const ended = once(reading, 'exit')
    let last = 0
    for await (const line of linesOf(reading.stdout)) {
      const place = line
        .subarray(0, 200)
        .toString('latin1')
        .match(/\tGTID \d+-\d+-(\d+)/)
      if (place) last = Math.max(last, Number(place[1]))
    }
    const [status] = await ended
    if (status === 0) reach.push({ log, last })
  }
  // Where none can be followed, what is wrong is said of the first.
  return reach.sort((a, b) => b.last - a.last)[0]?.log ?? logs[0] ?? []
}

/**
 * Follows what was changed after a backup up to a moment, in its order, in a scratch database that holds the backup.
 * @param {string[]} log
 * @param {string} gtid position of the backup; '' for the beginning
 * @param {Date} until
 * @param {import('./scratch.js').Reader} owner
 * @returns {Promise<string>} '' when all of it could be followed, else what the client says
 */
export async function follow(log, gtid, until, owner) {
  const reading = spawn('mariadb-binlog', await partOf(log, gtid, until, owner.env), {
    env: { ...owner.env, TZ: 'UTC' },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  reading.stderr.on('data', (chunk) => (said += chunk))
  const ended = once(reading, 'exit')
  const fault = await feed(reading.stdout, owner)
  const [status] = await ended
  // Its messages hold contents of rows: the number of the error is enough.
  if (fault) return /ERROR \d+ \([0-9A-Z]+\)/.exec(fault)?.[0] ?? 'the client ended'
  if (status === 0 || (said.includes(NOT_REACHED) && (await reaches(log, gtid, owner.env))))
    return ''
  return said.split('\n')[0] || `status ${status}`
}

/** The log ends before its beginning is found: so it is, too, when nothing was changed up to the moment. */
const NOT_REACHED = 'never reached expected GTID state'

/**
 * Whether a log holds a position.
 * @param {string[]} log
 * @param {string} gtid
 * @param {NodeJS.ProcessEnv} env
 */
async function reaches(log, gtid, env) {
  const words = await partOf(log, gtid, null, env)
  const { failed } = await execa('mariadb-binlog', words, {
    env,
    stdout: 'ignore',
    reject: false,
  })
  return !failed
}

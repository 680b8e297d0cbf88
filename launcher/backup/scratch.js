import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { randomBytes } from 'node:crypto'
import { makeData, sql, startDatabase } from '../database.js'
import { freePort } from '../ports.js'
import { stopProgram } from '../processes.js'
import { temporaryDirectory } from '../temporary.js'
import { withoutOwner } from './dump.js'

/** @typedef {import('../database.js').Database} Database */

/**
 * Who may do something on one database alone.
 * @typedef {object} Reader
 * @property {number} port on this machine
 * @property {string} name
 * @property {string} password
 * @property {NodeJS.ProcessEnv} env
 */

const FIRST_PORT = 20_000
const PORTS = 10_000
const NAME = 'uvanta_owner'
const OWNER = `'${NAME}'@'127.0.0.1'`

/**
 * Starts a database that is thrown away, in which something is tried whose writer may not be trusted: nothing of it
 * can reach the record. It ends when `stop` is called, or with the command.
 * @param {string} parent directory in which it is made
 * @param {NodeJS.ProcessEnv} env
 */
export async function scratchDatabase(parent, env) {
  const home = join(temporaryDirectory(parent), 'db')
  const password = randomBytes(24).toString('hex')
  await makeData(home, env)
  // From a number of the process on, so that two that start at once do not take the same.
  const port = await freePort(FIRST_PORT + (process.pid % PORTS))
  const nothing = join(home, 'nothing')
  mkdirSync(nothing)
  const database = await startDatabase(home, port, env, {
    // Its owner follows a log of changes, in which rights are given to whoever serves.
    users: [
      `CREATE USER ${OWNER} IDENTIFIED BY '${password}';`,
      `GRANT ALL ON uvanta.* TO ${OWNER} WITH GRANT OPTION;`,
      `GRANT BINLOG REPLAY, SET USER ON *.* TO ${OWNER};`,
      `CREATE USER 'uvanta'@'127.0.0.1' IDENTIFIED BY '${password}';`,
      '',
    ].join('\n'),
    options: [
      '--innodb-buffer-pool-size=128M',
      '--innodb-flush-method=nosync',
      '--local-infile=0',
      `--secure-file-priv=${nothing}`,
    ],
  })
  const stop = () => stopProgram(database.child)
  /** @type {Reader} */
  const owner = { port, name: NAME, password, env }
  return { database, owner, port, stop }
}

/**
 * Gives lines of SQL to the client, as somebody who has rights on one database alone. In its sandbox nothing leaves
 * the client: no command of the system is run and no file is written.
 * @param {AsyncIterable<Buffer>} lines
 * @param {Reader} reader
 * @returns {Promise<string>} '' when all was done, else what the client says
 */
export async function feed(lines, { port, name, password, env }) {
  const client = spawn(
    'mariadb',
    [
      '--no-defaults',
      '--protocol=tcp',
      '--host=127.0.0.1',
      `--port=${port}`,
      `--user=${name}`,
      '--sandbox',
      'uvanta',
    ],
    { env: { ...env, MYSQL_PWD: password }, stdio: ['pipe', 'ignore', 'pipe'] },
  )
  const ended = once(client, 'exit')
  let said = ''
  client.stderr.on('data', (chunk) => (said += chunk))
  // A client that ends early is heard of by its status.
  await pipeline(lines, client.stdin).catch((error) => {
    if (error.code !== 'EPIPE') throw error
  })
  const [status] = await ended
  return status === 0 ? '' : said || `status ${status}`
}

/**
 * Replaces the database by what a dump holds.
 * @param {import('./dump.js').Lines} dump
 * @param {Database} database
 * @param {Reader} owner
 * @returns {Promise<string>} '' when all was read in, else what the client says
 */
export async function readIn(dump, database, owner) {
  await sql(database, 'DROP DATABASE IF EXISTS uvanta; CREATE DATABASE uvanta')
  return feed(withoutOwner(dump), owner)
}

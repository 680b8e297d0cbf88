import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { execa } from 'execa'
import { ROOT } from '../packages.js'
import { startOwn } from '../running.js'
import { endAll } from '../cleanup.js'
import { sql } from '../database.js'
import { asOwner, server } from '../server.js'
import { installationAt } from '../settings.js'

/** Ports that no other test takes. */
const DATABASE_PORT = '4930'

/** A directory that is deleted after the tests, through which the database may pass. */
export function testDirectory() {
  const home = mkdtempSync(join(tmpdir(), 'uvanta-test-'))
  chmodSync(home, 0o711)
  return { home, remove: () => rmSync(home, { recursive: true, force: true }) }
}

/** The environment of a test, without what belongs to another directory. @returns {NodeJS.ProcessEnv} */
export function environment() {
  const { PATH, HOME, UVANTA_LIBRARY_KEPT } = process.env
  return {
    PATH,
    HOME,
    UVANTA_LIBRARY_KEPT,
    UVANTA_DB_WANTED_PORT: DATABASE_PORT,
    UVANTA_LOG: 'silent',
  }
}

/** @param {string} data */
export const testInstallation = (data) => installationAt(data, environment())

/**
 * Works on the database of an installation, which runs meanwhile.
 * @template T
 * @param {string} data
 * @param {(open: Awaited<ReturnType<typeof startOwn>>) => Promise<T>} work
 */
export async function withDatabase(data, work) {
  const open = await startOwn(testInstallation(data), 'command')
  try {
    return await work(open)
  } finally {
    await endAll()
  }
}

/** A new record with its schema. @param {string} data */
export const newRecord = (data) =>
  withDatabase(data, async ({ installation }) => {
    await server(asOwner(installation), ['migrate'])
    // Makes the keys that sign and seal.
    await server(installation, ['verify-chain'])
  })

/**
 * Runs the launcher as a person does.
 * @param {string[]} words
 * @param {{ env?: NodeJS.ProcessEnv, cwd?: string, input?: string }} options
 */
export async function uvanta(words, { env = {}, cwd = ROOT, input = '' } = {}) {
  const { all, stdout, exitCode } = await execa(join(ROOT, 'uvanta'), words, {
    env: { ...environment(), ...env },
    extendEnv: false,
    cwd,
    input,
    all: true,
    reject: false,
  })
  return { said: all, output: stdout, status: exitCode }
}

/** A row that nobody seals, so that the chains verify while it is written. @param {string} name */
export const rowOf = (name) =>
  `INSERT INTO uvanta.request_count (subject, count, since) VALUES ('${name}', 1, NOW(3))`

/** @param {import('../database.js').Database} database */
export const rowsIn = async (database) =>
  (await sql(database, 'SELECT subject FROM uvanta.request_count ORDER BY subject'))
    .split('\n')
    .filter(Boolean)

import { createHash } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import { homedir } from 'node:os'
import { join, resolve } from 'node:path'
import { parseEnv } from 'node:util'
import { ROOT } from './packages.js'

/**
 * An installation: a directory of data, and how it is served.
 * @typedef {object} Installation
 * @property {string} data directory of the data
 * @property {string} keys directory of keys and passwords
 * @property {string} backups directory of backups
 * @property {number} port where people are served, when it is free
 * @property {number} databasePort from this port on a free one is taken
 * @property {NodeJS.ProcessEnv} env for the programs that are started
 */

/** Settings of an installation, as its service reads them. */
const SETTINGS_FILE = '/etc/uvanta/uvanta.env'

/**
 * Finds the installation that a command is for: the directory that is named, or `UVANTA_DATA`, or that of the
 * settings file of this machine, or `.uvanta` in the checkout. The environment comes before the file, and the file
 * counts only where it names the directory.
 * @param {string | undefined} named
 * @param {NodeJS.ProcessEnv} environment
 * @returns {Installation}
 */
export function findInstallation(named, environment = process.env) {
  const directory = named ?? environment.UVANTA_DATA
  const file = environment.UVANTA_ENV_FILE ?? SETTINGS_FILE
  const settings = directory || !existsSync(file) ? {} : readSettings(file)
  const env = { ...settings, ...environment }
  return installationAt(resolve(directory || env.UVANTA_DATA || join(ROOT, '.uvanta')), env)
}

/**
 * @param {string} data
 * @param {NodeJS.ProcessEnv} env
 * @returns {Installation}
 */
export function installationAt(data, env) {
  return {
    data,
    keys: join(data, 'keys'),
    backups: join(data, 'backups'),
    port: Number(env.UVANTA_PORT ?? 4870),
    databasePort: Number(env.UVANTA_DB_WANTED_PORT ?? 4880),
    // Debian keeps the programs of the database where an ordinary user does not look.
    env: {
      HOME: homedir(),
      ...env,
      UVANTA_DATA: data,
      UVANTA_KIND: textOf(join(data, 'kind')) || env.UVANTA_KIND,
      PATH: `${env.PATH}:/usr/sbin`,
    },
  }
}

/** @param {string} file */
function readSettings(file) {
  const all = parseEnv(readFileSync(file, 'utf8'))
  return Object.fromEntries(Object.entries(all).filter(([name]) => name.startsWith('UVANTA_')))
}

/** A short path for a socket, which may not be long: one for each directory. @param {string} home */
export const socketOf = (home) =>
  `/tmp/uvanta-${createHash('sha256').update(home).digest('hex').slice(0, 12)}.sock`

/** Reads a file of the installation. @param {string} file @returns {string} its text, or '' */
export const textOf = (file) => (existsSync(file) ? readFileSync(file, 'utf8').trim() : '')

import { join } from 'node:path'
import { execa } from 'execa'
import { LauncherError, programOutput, say } from './output.js'
import { ROOT } from './packages.js'
import { secret } from './secrets.js'

/** @typedef {import('./settings.js').Installation} Installation */

/** The commands of the server (server/cli). */
const CLI = join(ROOT, 'server/dist/cli.js')

/**
 * With every right on the schema, as whatever serves has not.
 * @param {Installation} installation
 * @returns {Installation}
 */
export const asOwner = (installation) => ({
  ...installation,
  env: {
    ...installation.env,
    UVANTA_DB_USER: 'uvanta_owner',
    UVANTA_DB_PASSWORD: secret(installation, 'db-owner-password'),
  },
})

/**
 * Runs a command of the server and shows what it says.
 * @param {Installation} installation
 * @param {string[]} words
 * @param {string} input what is not for the command line, where others see it
 * @throws {LauncherError} without words of its own: the command said what is wrong
 */
export async function server({ env }, words, input = '') {
  const { exitCode } = await execa('node', [CLI, ...words], {
    env,
    input,
    reject: false,
    stdout: programOutput(),
    stderr: 'inherit',
  })
  if (exitCode !== 0) throw new SaidAlready(exitCode ?? 1)
}

/**
 * What a command of the server says.
 * @param {Installation} installation
 * @param {string[]} words
 * @param {string} input
 * @returns {Promise<string>}
 */
export async function answerOf({ env }, words, input = '') {
  const { stdout, exitCode } = await execa('node', [CLI, ...words], {
    env,
    input,
    reject: false,
    stderr: 'inherit',
  })
  if (exitCode !== 0) throw new SaidAlready(exitCode ?? 1)
  return stdout
}

/**
 * Recomputes every hash of the record, and says what was checked and every fault.
 * @param {Installation} installation
 * @returns {Promise<{ visits: number, events: number, certificates: number,
 *   faults: { of: string, id: string, what: string }[] }>}
 */
export async function verified(installation) {
  const found = JSON.parse(await answerOf(installation, ['verify-chain']))
  for (const fault of found.faults) say(`${fault.of} ${fault.id}: ${fault.what}`)
  say(
    `${found.events} events in ${found.visits} visits and ${found.certificates} certificates checked, ${found.faults.length} faults`,
  )
  return found
}

/** A program has said itself what is wrong. */
export class SaidAlready extends LauncherError {
  /** @param {number} status */
  constructor(status) {
    super('')
    this.status = status
  }
}

import { once } from 'node:events'
import { isEnding } from './cleanup.js'
import { LauncherError, step } from './output.js'
import { hasEnded } from './processes.js'

/**
 * A program that is started again when it ends by itself.
 * @typedef {object} Part
 * @property {string} name
 * @property {import('node:child_process').ChildProcess} child
 * @property {() => Promise<import('node:child_process').ChildProcess>} start
 */

const MOST_ENDS = 8
const WITHIN_MS = 60_000

/**
 * Starts again what ends by itself, until the command is stopped.
 * @param {Part[]} parts in the order in which they need each other
 * @returns {Promise<void>} once the command is being ended
 * @throws {LauncherError} something ends again and again: somebody has to look
 */
export async function supervise(parts) {
  let ends = 0
  let since = Date.now()
  for (;;) {
    if (!parts.some(({ child }) => hasEnded(child)))
      await Promise.race(parts.map(({ child }) => once(child, 'exit')))
    if (isEnding()) return
    if (Date.now() - since > WITHIN_MS) {
      ends = 0
      since = Date.now()
    }
    if (++ends > MOST_ENDS)
      throw new LauncherError(
        'something ends again and again; see error.log in the directory of the database, and above',
      )
    for (const part of parts) {
      if (!hasEnded(part.child)) continue
      step(`The ${part.name} ended; starting it again`)
      try {
        part.child = await part.start()
      } catch (error) {
        // The database has to be there before anything else; the application may need another moment.
        if (part === parts[0]) throw error
        step('It did not start; trying again')
      }
    }
  }
}

import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { LauncherError, programOutput } from './output.js'
import { ROOT } from './packages.js'
import { hasEnded, startProgram } from './processes.js'

/** @typedef {import('./settings.js').Installation} Installation */

/** A busy machine proves a changed library slowly. */
const PATIENCE_MS = 300_000

/** Whether an application on this machine says that it is well. @param {number} port @param {string} path */
export const answersAt = (port, path) =>
  fetch(`http://127.0.0.1:${port}${path}`, { signal: AbortSignal.timeout(2_000) }).then(
    (answer) => answer.ok,
    () => false,
  )

/**
 * Starts the application and waits until it answers.
 * @param {Installation} installation
 * @param {number} port
 */
export async function startApplication({ data, env }, port) {
  const child = startProgram(
    process.execPath,
    ['--enable-source-maps', join(ROOT, 'server/dist/main.js')],
    {
      env: { ...env, UVANTA_PORT: String(port) },
      stdio: ['ignore', programOutput(), 'inherit'],
      pidFile: join(data, 'app.pid'),
    },
  )
  const until = Date.now() + PATIENCE_MS
  while (Date.now() < until && !hasEnded(child)) {
    if (await answersAt(port, '/healthz')) return child
    await pause(100)
  }
  throw new LauncherError('the application did not start')
}

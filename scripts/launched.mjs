// A running Uvanta of a test, in a data directory of its own.
import { execFileSync, spawn } from 'node:child_process'
import { openSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { pause } from './oneVisit.mjs'

const program = join(import.meta.dirname, '..', 'uvanta')

/** A machine that tests in full is slow; what takes longer than this will not come. */
const PATIENCE_MS = 300_000

/** Whether an application answers that it can work. */
const asks = (base) =>
  fetch(`${base}/readyz`, { signal: AbortSignal.timeout(2_000) }).then(
    (r) => r.ok,
    () => false,
  )

/** @param home its data directory, which the environment names as well */
export function launcherOf(home, base) {
  let launcher
  const isUp = () => asks(base)
  const untilUp = async () => {
    const until = Date.now() + PATIENCE_MS
    while (Date.now() < until && launcher.exitCode === null) {
      if (await isUp()) return
      await pause(100)
    }
    throw new Error('it did not start')
  }
  return {
    isUp,
    untilUp,
    launcher: () => launcher,
    pidOf: (file) => Number(readFileSync(join(home, file), 'utf8')),
    start() {
      const log = openSync(join(home, 'said'), 'a')
      launcher = spawn(program, ['start', '--empty'], {
        detached: true,
        stdio: ['ignore', log, log],
      })
      return untilUp()
    },
    async stop() {
      const ended = new Promise((done) => launcher.once('exit', done))
      process.kill(launcher.pid, 'SIGTERM')
      await ended
    },
    command: (words, input = '') =>
      execFileSync(program, words, { input, stdio: ['pipe', 'ignore', 'inherit'] }),
  }
}

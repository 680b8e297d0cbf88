import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { execa } from 'execa'
import { atEnd } from './cleanup.js'
import { LauncherError } from './output.js'
import { textOf } from './settings.js'

/**
 * What works in a directory of data.
 * @typedef {object} Holder
 * @property {number} pid
 * @property {'start' | 'dev' | 'cluster' | 'command'} as the first three serve until they are stopped
 */

const lockOf = (/** @type {string} */ data) => join(data, 'lock')
const holderOf = (/** @type {string} */ data) => join(data, 'running.json')

/**
 * Who holds the lock of a directory, or null. The lock is the kernel's: it ends with the process that took it,
 * whatever became of that.
 * @param {string} data
 * @returns {Promise<Holder | null>}
 */
export async function whoWorksIn(data) {
  const file = lockOf(data)
  if (!existsSync(file)) return null
  const { exitCode } = await execa('flock', ['--nonblock', '--shared', file, 'true'], {
    reject: false,
  })
  if (exitCode !== 1) return null
  const text = textOf(holderOf(data))
  return text ? JSON.parse(text) : { pid: 0, as: 'command' }
}

/**
 * Takes the lock of a directory until the command ends.
 * @param {string} data
 * @param {Holder['as']} as
 * @throws {LauncherError} somebody else works in it
 */
export async function takeLock(data, as) {
  mkdirSync(data, { recursive: true })
  // It holds the lock for as long as its input is open: a launcher that is killed lets go of it. The wait is for
  // those who only look.
  const held = spawn(
    'flock',
    ['--wait', '2', lockOf(data), 'sh', '-c', 'echo held; exec cat >/dev/null'],
    { detached: true, stdio: ['pipe', 'pipe', 'ignore'] },
  )
  const isOurs = await new Promise((done, failed) => {
    held.once('error', () =>
      failed(new LauncherError('flock is missing. It is in Debian’s util-linux.')),
    )
    held.stdout.once('data', () => done(true))
    held.once('exit', () => done(false))
  })
  if (!isOurs) {
    const holder = await whoWorksIn(data)
    throw new LauncherError(
      `Uvanta runs already in ${data}${holder?.pid ? ` (process ${holder.pid})` : ''}. Stop it first, or name another directory with --data.`,
    )
  }
  writeFileSync(holderOf(data), JSON.stringify({ pid: process.pid, as }))
  atEnd(async () => {
    rmSync(holderOf(data), { force: true })
    const ended = new Promise((done) => held.once('exit', done))
    held.stdin.end()
    await ended
  })
}

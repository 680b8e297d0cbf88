import { spawn } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { atEnd, isEnding } from './cleanup.js'
import { LauncherError, step } from './output.js'
import { textOf } from './settings.js'

/** @typedef {import('node:child_process').ChildProcess} ChildProcess */

/**
 * Starts a program in a session of its own, so that Ctrl-C reaches the launcher alone. It ends with the command;
 * what was started last ends first.
 * @param {string} program
 * @param {string[]} words
 * @param {import('node:child_process').SpawnOptions & { pidFile?: string, outlives?: boolean }} options
 *   `outlives`: it goes on after the command
 * @returns {ChildProcess}
 */
export function startProgram(program, words, { pidFile, outlives = false, ...options }) {
  if (isEnding()) throw new LauncherError('stopped')
  const child = spawn(program, words, { stdio: 'ignore', ...options, detached: true })
  // A program that cannot be started has ended: `hasEnded` says so.
  child.once('error', () => undefined)
  if (!outlives) atEnd(() => stopProgram(child))
  if (pidFile) writeFileSync(pidFile, String(child.pid))
  return child
}

/** @param {ChildProcess} child */
export const hasEnded = ({ pid, exitCode, signalCode }) =>
  pid === undefined || exitCode !== null || signalCode !== null

/**
 * Sends a signal and waits for the end.
 * @param {ChildProcess | undefined} child
 * @param {NodeJS.Signals} signal
 */
export async function stopProgram(child, signal = 'SIGTERM') {
  if (!child || hasEnded(child)) return
  const ended = new Promise((done) => child.once('exit', done))
  child.kill(signal)
  await ended
}

/**
 * Ends what an earlier launcher left behind that was killed itself. A process is known by what it runs and by the
 * directory of data: after a power cut its number may be that of any other program.
 * @param {string} data
 */
export async function endOrphans(data) {
  /** @type {[file: string, runs: string][]} */
  const known = [
    ['app.pid', 'server/dist/main.js'],
    ['gauge.pid', 'standins/dist/gauge.js'],
    ['db/mariadbd.pid', join(data, 'db', 'data')],
  ]
  for (const [file, runs] of known) {
    const pid = Number(textOf(join(data, file)))
    if (!pid || !isOurs(pid, runs, data)) continue
    step(`Ending what an earlier start left behind (process ${pid})`)
    process.kill(pid, 'SIGTERM')
    for (let n = 0; n < 100 && existsSync(`/proc/${pid}`); n++) await pause(200)
    if (existsSync(`/proc/${pid}`)) process.kill(pid, 'SIGKILL')
  }
}

/** @param {number} pid @param {string} runs @param {string} data */
function isOurs(pid, runs, data) {
  try {
    const read = (/** @type {string} */ name) => readFileSync(`/proc/${pid}/${name}`, 'utf8')
    const command = read('cmdline').replaceAll('\0', ' ')
    if (!command.includes(runs)) return false
    return command.includes(data) || read('environ').split('\0').includes(`UVANTA_DATA=${data}`)
  } catch {
    return false
  }
}

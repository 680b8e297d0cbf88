import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { accessSync, constants, existsSync, readFileSync, writeFileSync } from 'node:fs'
import { userInfo } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { LauncherError, step } from './output.js'

/** The checkout. */
export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)))

const MARK = join(ROOT, 'node_modules', '.uvanta-lock')
/** Workspaces that build and run the application. */
const OWN = ['core', 'contract', 'server', 'web', 'standins', 'launcher']

/** Refuses a Node that is too old. @param {string} version as `process.version` gives it */
export function needNode(version) {
  const [major = 0, minor = 0] = version.slice(1).split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    throw new LauncherError(`Node ${version} is too old. Install Node 20.19 or newer.`)
}

/** Refuses to go on when this user may not write to the checkout: its service may only read it. */
export function needWritableCheckout() {
  try {
    accessSync(ROOT, constants.W_OK)
  } catch {
    throw new LauncherError(
      `the packages or the build are missing or out of date, and ${userInfo().username} may not write to the checkout. Run as its owner: ./uvanta install`,
    )
  }
}

/**
 * Installs the npm packages that the lockfile names and that are not there yet.
 * @param {'own' | 'all'} which what builds and runs the application; or also what checks and tests it
 */
export async function needPackages(which) {
  const wanted = createHash('sha256').update(readFileSync(join(ROOT, 'package-lock.json')))
  const lock = wanted.digest('hex')
  const installed = existsSync(MARK) ? readFileSync(MARK, 'utf8').trim() : ''
  if (installed === `${lock} all` || installed === `${lock} ${which}`) return
  needWritableCheckout()
  step('Installing npm packages')
  const workspaces = which === 'all' ? [] : OWN.flatMap((name) => ['-w', name])
  // What is missing is added: an application that runs goes on reading what is there.
  const words = installed === `${lock} own` ? ['install', '--no-save'] : ['ci', ...workspaces]
  await npm([...words, '--no-progress'])
  writeFileSync(MARK, `${lock} ${which}`)
}

/** @param {string[]} words */
function npm(words) {
  return new Promise((done, failed) => {
    const child = spawn('npm', words, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] })
    /** @type {string[]} */
    const lines = []
    const keep = (/** @type {Buffer} */ chunk) => lines.push(...chunk.toString().split('\n'))
    child.stdout.on('data', keep)
    child.stderr.on('data', keep)
    child.once('error', () => failed(new LauncherError('npm is missing. It comes with Node.')))
    child.once('exit', (status) => {
      if (status === 0) return done(undefined)
      process.stderr.write(`${lines.slice(-20).join('\n')}\n`)
      failed(new LauncherError('installing the npm packages failed.'))
    })
  })
}

import { existsSync, mkdirSync, readdirSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { execa } from 'execa'
import { LauncherError, step } from './output.js'
import { needWritableCheckout, ROOT } from './packages.js'
import { textOf } from './settings.js'

const MARK = join(ROOT, 'web/dist/.built')
const SOURCES = [
  ...['core', 'contract', 'server', 'standins', 'web/src', 'web/public'],
  ...['web/index.html', 'web/vite.config.ts', 'package-lock.json'],
]
const NO_SOURCE = ['dist', 'node_modules']

/**
 * Whether a file, or one in a directory, was changed after a time.
 * @param {string} path
 * @param {number} time
 * @returns {boolean}
 */
function changedAfter(path, time) {
  const found = statSync(path)
  if (found.isFile()) return found.mtimeMs > time
  return readdirSync(path, { withFileTypes: true }).some(
    (entry) => !NO_SOURCE.includes(entry.name) && changedAfter(join(path, entry.name), time),
  )
}

function isBuilt() {
  const built = [MARK, join(ROOT, 'server/dist/main.js'), join(ROOT, 'standins/dist/gauge.js')]
  if (!built.every((file) => existsSync(file))) return false
  const { mtimeMs } = statSync(MARK)
  return !SOURCES.some((source) => changedAfter(join(ROOT, source), mtimeMs))
}

/**
 * What a build goes on with, while the server is there already.
 * @typedef {object} Build
 * @property {Promise<unknown>} library the library is proved; what is wrong with it is said by what opens it
 * @property {Promise<unknown>} pages the web application is built
 */

/**
 * Builds what is out of date. The server is there once this is done; the rest is waited for by whoever needs it.
 * @param {import('./settings.js').Installation} installation
 * @returns {Promise<Build>}
 */
export async function beginBuild({ data, env }) {
  if (isBuilt()) return { library: Promise.resolve(), pages: Promise.resolve() }
  needWritableCheckout()
  step('Building')
  mkdirSync(data, { recursive: true })
  const log = join(data, 'build.log')
  writeFileSync(log, '')
  const began = new Date()
  /** @param {string[]} workspaces */
  const build = async (...workspaces) => {
    const to = { file: log, append: true }
    const words = ['run', 'build', ...workspaces.flatMap((name) => ['-w', name])]
    const { failed } = await execa('npm', words, {
      cwd: ROOT,
      env,
      reject: false,
      stdout: to,
      stderr: to,
    })
    if (!failed) return
    process.stderr.write(`${textOf(log).split('\n').slice(-30).join('\n')}\n`)
    throw new LauncherError('the build failed')
  }
  await build('server', 'standins')
  const library = execa('node', [join(ROOT, 'server/dist/cli.js'), 'library'], {
    env,
    reject: false,
    stdio: 'ignore',
  })
  const pages = build('web').then(() => {
    writeFileSync(MARK, '')
    // A file that was saved during the build is not in it.
    utimesSync(MARK, began, began)
  })
  // A failure is heard of by whoever waits for it.
  pages.catch(() => undefined)
  return { library, pages }
}

/** Builds what is out of date, all of it. @param {import('./settings.js').Installation} installation */
export async function needBuild(installation) {
  const { library, pages } = await beginBuild(installation)
  await pages
  await library
}

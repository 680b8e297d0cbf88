import { accessSync, constants, existsSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { execa } from 'execa'
import { LauncherError, step } from './output.js'

/** Debian packages by the program that is looked for. */
export const DATABASE_PROGRAMS = { mariadbd: 'mariadb-server-core', mariadb: 'mariadb-client' }
export const CLUSTER_PROGRAMS = {
  haproxy: 'haproxy',
  '/usr/lib/galera/libgalera_smm.so': 'galera-4',
  rsync: 'rsync',
  lsof: 'lsof',
}
export const TEST_PROGRAMS = {
  'chromium-headless-shell': 'chromium-headless-shell',
  pdftotext: 'poppler-utils',
  zbarimg: 'zbar-tools',
  qpdf: 'qpdf',
}

/** @param {string} program a name, or a path @param {string} path directories, as PATH has them */
export function isThere(program, path) {
  if (program.startsWith('/')) return existsSync(program)
  return path.split(':').some((directory) => {
    try {
      accessSync(join(directory, program), constants.X_OK)
      return true
    } catch {
      return false
    }
  })
}

/** @param {NodeJS.ProcessEnv} env */
export const canInstall = (env) => process.getuid?.() === 0 && isThere('apt-get', env.PATH ?? '')

/**
 * Installs the Debian packages of programs that are missing, as root; any other user is told what to run.
 * @param {import('./settings.js').Installation} installation
 * @param {Record<string, string>} programs Debian packages by program
 */
export async function needPrograms({ data, env }, programs) {
  const missing = Object.keys(programs).filter((program) => !isThere(program, env.PATH ?? ''))
  if (missing.length === 0) return
  const packages = [...new Set(missing.map((program) => programs[program] ?? program))]
  const install = ['install', '-y', '--no-install-recommends', ...packages]
  if (!canInstall(env))
    throw new LauncherError(
      `missing: ${missing.join(', ')}. Run as root:  apt-get update && apt-get ${install.join(' ')}`,
    )
  step(`Installing ${packages.join(' ')} (Debian)`)
  mkdirSync(data, { recursive: true })
  const log = join(data, 'apt.log')
  const options = /** @type {const} */ ({
    env: { ...env, DEBIAN_FRONTEND: 'noninteractive' },
    reject: false,
    stdout: { file: log, append: true },
    stderr: { file: log, append: true },
  })
  await execa('apt-get', ['update'], options)
  const { failed } = await execa('apt-get', install, options)
  if (failed) throw new LauncherError(`installing ${packages.join(' ')} failed; see ${log}`)
}

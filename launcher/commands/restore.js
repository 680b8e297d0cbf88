import { existsSync, mkdirSync, readdirSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { usualChanges } from '../backup/changes.js'
import { restore as putBack } from '../backup/restore.js'
import { needBuild } from '../build.js'
import { whoWorksIn } from '../lock.js'
import { LauncherError, say } from '../output.js'
import { passphraseOf } from '../passphrase.js'
import { installationAt } from '../settings.js'
import { temporaryDirectory } from '../temporary.js'

/** @typedef {import('../settings.js').Installation} Installation */
/** @typedef {{ until?: string, changes?: string, signedBy?: string, dryRun?: boolean }} Words */

/**
 * Puts a backup back.
 * @param {Installation} installation
 * @param {string} named
 * @param {Words} words
 */
export async function restore(installation, named, words) {
  const file = needFile(named)
  if (await whoWorksIn(installation.data))
    throw new LauncherError('stop Uvanta first (Ctrl-C where it runs), then restore.')
  await needBuild(installation)
  mkdirSync(installation.backups, { recursive: true, mode: 0o700 })
  return putBack(installation, file, {
    ...optionsOf(installation, words),
    trusted: join(installation.keys, 'trusted.json'),
    again: againOf(file, words),
  })
}

/**
 * The whole way back, beside what is there: a restore into a directory of its own, every chain verified.
 * @param {Installation} installation
 * @param {string | undefined} named the newest backup where none is named
 * @param {Words} words
 */
export async function drill(installation, named, words) {
  const began = Date.now()
  const { data, backups, env } = installation
  const newest = existsSync(backups) ? newestBackup(backups) : undefined
  const file = (named ?? newest) ? needFile(named ?? newest ?? '') : ''
  if (!file) throw new LauncherError('there is no backup to try: ./uvanta backup')
  await needBuild(installation)
  // Beside the data, where there is room for it; on a machine without data, where temporary files are.
  const home = temporaryDirectory(existsSync(data) ? data : tmpdir())
  await putBack({ ...installationAt(home, env), databasePort: 4960 }, file, {
    ...optionsOf(installation, words),
    trusted: join(installation.keys, 'trusted.json'),
    again: '',
  })
  if (existsSync(backups)) writeFileSync(join(backups, 'drilled'), new Date().toISOString())
  const seconds = Math.round((Date.now() - began) / 1000)
  say(`${file} restores, in ${seconds} s; it holds what is counted above.`)
  return { file, seconds }
}

/** @param {string} named */
function needFile(named) {
  const file = resolve(named)
  if (!existsSync(file) || !statSync(file).isFile())
    throw new LauncherError(`there is no file ${file}. Name the backup: ./uvanta restore FILE`)
  return file
}

/** @param {string} backups */
const newestBackup = (backups) =>
  readdirSync(backups)
    .filter((name) => /\.tar(\.gz|\.age)?$/.test(name))
    .map((name) => join(backups, name))
    .sort((a, b) => statSync(a).mtimeMs - statSync(b).mtimeMs)
    .at(-1)

/** @param {Installation} installation @param {Words} words */
const optionsOf = (installation, { until, changes, signedBy, dryRun }) => ({
  ...(until ? { until: momentOf(until) } : {}),
  changes: changes ? resolve(changes) : usualChanges(installation),
  signedBy: signedBy ?? '',
  dryRun: dryRun ?? false,
  passphrase: passphraseOf(installation.env),
})

/** @param {string} words a time in UTC */
function momentOf(words) {
  const time = new Date(`${words.trim().replace(' ', 'T').replace(/Z$/, '')}Z`)
  if (Number.isNaN(time.getTime()))
    throw new LauncherError(`“${words}” is no time. Write it as 2026-11-27 14:05, in UTC.`)
  return time
}

/** The words of the command that goes on with a restore. @param {string} file @param {Words} words */
const againOf = (file, { until, changes, signedBy }) =>
  [
    file,
    ...(until ? ['--until', until] : []),
    ...(changes ? ['--changes', resolve(changes)] : []),
    ...(signedBy ? ['--signed-by', signedBy] : []),
  ]
    .map((word) => (/^[\w@%+=:,./-]+$/.test(word) ? word : `'${word.replaceAll("'", "'\\''")}'`))
    .join(' ')

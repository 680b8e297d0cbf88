import { existsSync, renameSync, rmSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { saveChanges, usualChanges } from '../backup/changes.js'
import { writeBackup } from '../backup/file.js'
import { nameOfNow } from '../backup/names.js'
import { needBuild } from '../build.js'
import { atEnd } from '../cleanup.js'
import { LauncherError, say } from '../output.js'
import { passphraseOf } from '../passphrase.js'
import { needData, openRecord } from '../running.js'
import { server } from '../server.js'

/** @typedef {import('../settings.js').Installation} Installation */

/**
 * Writes a backup, or copies what was changed since the last time.
 * @param {Installation} given
 * @param {string | undefined} named file of the backup, or directory of the changes
 * @param {{ encrypt?: boolean, changes?: boolean }} options
 */
export async function backup(given, named, { encrypt, changes }) {
  needData(given)
  const passphrase = encrypt ? await passphraseOf(given.env)() : ''
  await needBuild(given)
  // Without a migration: one that fails must not prevent a backup.
  const { installation, database, logs } = await openRecord(given)
  if (changes) {
    const directory = named ? resolve(named) : usualChanges(installation)
    await saveChanges(installation, logs, directory, passphrase)
    say(`Every change up to now is in ${directory}, read back.`)
    return { changes: directory }
  }
  const usual = join(installation.backups, `${nameOfNow()}.tar${encrypt ? '.age' : ''}`)
  const file = named ? resolve(named) : usual
  const plain = encrypt ? `${file}.plain` : file
  if (encrypt) atEnd(() => [plain, `${file}.part`].forEach((left) => rmSync(left, { force: true })))
  const signedBy = await writeBackup(installation, database, plain)
  if (encrypt) {
    await server(installation, ['encrypt', plain, `${file}.part`], passphrase).catch(() => {
      throw new LauncherError('it could not be encrypted; nothing was kept.')
    })
    rmSync(plain)
    renameSync(`${file}.part`, file)
  }
  if (!existsSync(file)) throw new LauncherError(`${file} could not be written.`)
  say(`Backup written and read back: ${file}`)
  say(
    `It is signed with the key ${signedBy}. Keep that apart from the file: another machine asks for it.`,
  )
  return { file, signedBy }
}

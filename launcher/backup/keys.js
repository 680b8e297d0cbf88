import { cpSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { textOf } from '../settings.js'

/** @typedef {import('../settings.js').Installation} Installation */

/** The keys of signatures and seals go with the record; passwords belong to the directory. */
export const RECORD_KEYS = ['signing.json', 'trusted.json', 'seal', 'sealed', 'secrets']

/** @param {string} from @param {string} to */
function copyKeys(from, to) {
  mkdirSync(to, { recursive: true, mode: 0o700 })
  for (const name of RECORD_KEYS)
    if (existsSync(join(from, name)))
      cpSync(join(from, name), join(to, name), { preserveTimestamps: true })
}

/**
 * Copies the keys that go with the record.
 * @param {Installation} installation
 * @param {string} directory
 */
export const saveKeys = ({ keys }, directory) => copyKeys(keys, join(directory, 'keys'))

/**
 * The keys that a record has once it is put back, in a directory of their own. From another installation they are
 * those of the backup. In its own, keys that were taken after the backup stay: what they signed up to the moment of
 * the restore has to verify, and a key that was destroyed does not come back.
 * @param {string} keys directory of the keys of this installation
 * @param {string} contents an opened backup
 * @returns {string} the directory of data that holds them
 */
export function keysAfter(keys, contents) {
  const home = join(contents, 'after')
  const [old, after] = [join(contents, 'keys'), join(home, 'keys')]
  copyKeys(old, after)
  const [before, now] = [publicKeysIn(old), publicKeysIn(keys)]
  const more = now.filter(({ kid }) => !before.some((known) => known.kid === kid))
  const isOwn = more.length < now.length
  if (!isOwn) return home
  cpSync(join(keys, 'signing.json'), join(after, 'signing.json'), { preserveTimestamps: true })
  write(join(after, 'trusted.json'), JSON.stringify([...before, ...more]))
  const lines = [old, keys].flatMap((at) => textOf(join(at, 'sealed')).split('\n').slice(1))
  const [since = ''] = textOf(join(old, 'sealed')).split('\n')
  if (since) write(join(after, 'sealed'), [since, ...new Set(lines.filter(Boolean))].join('\n'))
  return home
}

/** The public keys that an installation ever had. @param {string} keys @returns {{ kid: string }[]} */
const publicKeysIn = (keys) => JSON.parse(textOf(join(keys, 'trusted.json')) || '[]')

/** @param {string} file @param {string} text */
const write = (file, text) => writeFileSync(file, text, { mode: 0o600 })

/**
 * Puts the keys of a record in force.
 * @param {Installation} installation
 * @param {string} home as `keysAfter` made it
 */
export function putKeysBack({ keys }, home) {
  for (const name of RECORD_KEYS) rmSync(join(keys, name), { force: true })
  copyKeys(join(home, 'keys'), keys)
}

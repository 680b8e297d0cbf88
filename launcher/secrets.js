import { randomBytes } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { textOf } from './settings.js'

/**
 * A random text that is made once and kept in the directory of keys.
 * @param {import('./settings.js').Installation} installation
 * @param {string} name
 */
export function secret({ keys }, name) {
  const file = join(keys, name)
  mkdirSync(keys, { recursive: true })
  chmodSync(keys, 0o700)
  if (!existsSync(file))
    writeFileSync(file, `${randomBytes(24).toString('hex')}\n`, { mode: 0o600 })
  return textOf(file)
}

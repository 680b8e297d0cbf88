import { existsSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { isBlank } from './database.js'
import { LauncherError } from './output.js'
import { textOf } from './settings.js'

/** @typedef {'demo' | 'own'} Kind whether a directory holds the demo or the record of a utility */

const fileOf = (/** @type {string} */ data) => join(data, 'kind')

/** What the demo’s equipment hides, for the simulated test gauge; there where the demo is. @param {string} data */
export const sitesOf = (data) => join(data, 'virtual-sites.json')

/** What a utility has of its own of the library. @param {string} data */
export const libraryOf = (data) => join(data, 'library')

/** There while the demo is loaded. @param {string} data */
export const loadingOf = (data) => `${sitesOf(data)}.loading`

/** @param {string} data @returns {Kind | ''} */
export const kindOf = (data) => /** @type {Kind | ''} */ (textOf(fileOf(data)))

/** @param {string} data @param {Kind} kind */
export const setKind = (data, kind) => writeFileSync(fileOf(data), kind)

/**
 * The first start makes a directory the demo’s or a utility’s own, and it stays that.
 * @param {string} data
 * @param {import('./database.js').Database} database
 * @param {Kind} wanted
 * @returns {Promise<Kind>}
 */
export async function decideKind(data, database, wanted) {
  if (!kindOf(data)) {
    // A directory of an earlier version has no such file.
    const isDemo = existsSync(sitesOf(data)) || existsSync(loadingOf(data))
    setKind(data, isDemo ? 'demo' : (await isBlank(database)) ? wanted : 'own')
  }
  const kind = /** @type {Kind} */ (kindOf(data))
  if (wanted === 'own' && kind === 'demo')
    throw new LauncherError(
      `the demo is in ${data}. Begin your own in another directory: ./uvanta --data DIRECTORY start --empty`,
    )
  return kind
}

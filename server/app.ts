import type { Library } from '@uvanta/core/library'
import { DateTime } from 'luxon'
import { v7 as uuidv7 } from 'uuid'
import type { Config } from './config'
import { BadLibraryFile } from './library/yamlFile'
import { LibraryShelf } from './service/shelf'
import { sealOnce } from './service/sealOnce'
import { openKeys, randomSuffix, type SigningKeys } from './service/keys'
import { type Database, openDatabase } from './store/database'

/** What every use case works with. */
export interface App {
  readonly config: Config
  readonly db: Database
  /** The know-how in force: what the shelf holds now. */
  readonly library: Library
  readonly shelf: LibraryShelf
  readonly keys: SigningKeys
  readonly now: () => DateTime<true>
  /** A new id, UUIDv7. */
  readonly newId: () => string
  /** The part of a certificate's code that cannot be guessed. */
  readonly newSuffix: () => string
  /** Legal date of the utility. */
  readonly today: () => string
}

export async function openApp(config: Config): Promise<App> {
  const db = openDatabase(config.database)
  await db.sequelize.authenticate()
  const now = () => DateTime.utc() as DateTime<true>
  const shelf = await LibraryShelf.open(config.libraryDirectory, db, now)
  const keys = await openKeys(config.dataDirectory, db, now)
  const app: App = {
    config,
    db,
    shelf,
    get library() {
      return shelf.library
    },
    keys,
    now,
    newId: uuidv7,
    newSuffix: randomSuffix,
    today: () => now().setZone(config.timeZone).toISODate() as string,
  }
  await sealOnce(app)
  return app
}

/** Opens the application for a program, or ends it with what is wrong with the library in words. */
export async function openOrExplain(config: Config): Promise<App> {
  return openApp(config).catch((error: unknown) => {
    if (!(error instanceof BadLibraryFile)) throw error
    process.stderr.write(`The library cannot be used:\n${error.message}\n`)
    process.exit(1)
  })
}

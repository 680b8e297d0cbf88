import { ExplainedError } from '@uvanta/core/errors'
import { DateTime } from 'luxon'
import { v7 as uuidv7 } from 'uuid'
import type { Config } from './config'
import type { App } from './context'
import { BadLibraryFile } from './library/yamlFile'
import { LibraryShelf } from './library/shelf'
import { keepSealed } from './service/integrity/rowSeals'
import { sealOnce } from './service/integrity/sealOnce'
import { openKeys, randomSuffix } from './service/certificate/keys'
import { KeptUtility } from './service/settings/keptUtility'
import { openSecretBox } from './service/people/secretBox'
import { openDatabase } from './store/database'
import { atOnce } from './heavy/heavyWork'

/** @param heavy where work is done that takes long; a server has it done beside the thread that answers */
export async function openApp(config: Config, heavy = atOnce): Promise<App> {
  const db = openDatabase(config.database)
  await db.sequelize.authenticate()
  const now = () => DateTime.utc() as DateTime<true>
  const keys = await openKeys(config, db, now)
  keepSealed({ db, keys })
  const utility = await KeptUtility.open(db, config)
  const shelf = await LibraryShelf.open(
    config.libraryLayers,
    db,
    now,
    config.libraryKeptIn,
    heavy.library,
  )
  const app: App = {
    config,
    db,
    shelf,
    keys,
    heavy,
    secrets: await openSecretBox(config),
    now,
    newId: uuidv7,
    newSuffix: randomSuffix,
    utility,
    today: () => now().setZone(utility.current.timeZone).toISODate() as string,
  }
  await sealOnce(app)
  return app
}

/** Opens the application for a program, or ends it with what is wrong with library or keys in words. */
export async function openOrExplain(config: Config, heavy = atOnce): Promise<App> {
  return openApp(config, heavy).catch((error: unknown) => {
    if (!(error instanceof ExplainedError)) throw error
    const what = error instanceof BadLibraryFile ? 'The library cannot be used:\n' : ''
    process.stderr.write(`${what}${error.message}\n`)
    process.exit(1)
  })
}

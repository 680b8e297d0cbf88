import type { DateTime } from 'luxon'
import type { Config } from './config'
import type { LibraryShelf } from './library/shelf'
import type { SigningKeys } from './service/certificate/keys'
import type { KeptUtility } from './service/settings/keptUtility'
import type { SecretBox } from './service/people/secretBox'
import type { Database } from './store/database'
import type { HeavyWork } from './heavy/heavyWork'

/** What every use case works with. */
export interface App {
  readonly config: Config
  readonly db: Database
  /** The know-how in force: `shelf.library` is what it holds now. */
  readonly shelf: LibraryShelf
  readonly utility: KeptUtility
  readonly keys: SigningKeys
  readonly secrets: SecretBox
  readonly heavy: HeavyWork
  readonly now: () => DateTime<true>
  /** A new id, UUIDv7. */
  readonly newId: () => string
  /** The part of a certificate's code that cannot be guessed. */
  readonly newSuffix: () => string
  /** Legal date of the utility. */
  readonly today: () => string
}

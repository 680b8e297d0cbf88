import { join } from 'node:path'
import type { UtilityState } from '@uvanta/contract'
import { isUnitOf, unitsOf } from '@uvanta/core/quantity'
import type { DatabaseSettings } from './store/database'

/** What the environment says of the utility. */
type UtilitySettings = Partial<
  Pick<
    UtilityState,
    | 'name'
    | 'authority'
    | 'certificatePrefix'
    | 'address'
    | 'phone'
    | 'timeZone'
    | 'zoneWithin'
    | 'gaugePressureUnit'
    | 'differentialUnit'
  >
>

export interface Config {
  readonly port: number
  /** The address that people and QR codes use. */
  readonly publicUrl: string
  readonly dataDirectory: string
  /** The library that ships. */
  readonly libraryDirectory: string
  /** Where the utility keeps what is its own of the library; not in the demo. */
  readonly ownLibrary: string
  /** What the library is read from, each over the one before. */
  readonly libraryLayers: readonly string[]
  /** What came of reading the library, so that the same files are not proved at every start. */
  readonly libraryKeptIn: string
  readonly webDirectory: string
  readonly sessionSecret: string
  /** What the key that signs is encrypted with in its file; absent where the file system alone guards it. */
  readonly keysPassphrase?: string
  /** Planner, reviewer and administrator do nothing without a second factor. */
  readonly officeNeedsSecondFactor: boolean
  /** Whether the address was set, and is not only that of this machine. */
  readonly isPublicUrlSet: boolean
  /** The directory is known to be the demo’s. */
  readonly isDemo: boolean
  /** What the utility is until its administrator says so; it is kept in the database. */
  readonly utility: UtilitySettings
  /** WebSocket of a simulated test gauge; absent where there is none. */
  readonly gaugeUrl?: string
  /** How long a process that is asked to end goes on answering, so that a proxy takes it out of service first, ms. */
  readonly drainMs: number
  readonly database: DatabaseSettings
}

const DEMO: UtilitySettings = {
  name: 'Larkhaven Gas & Water',
  authority: 'Larkhaven Water Authority',
  certificatePrefix: 'LH',
  address: '1 Quayside, Larkhaven',
  phone: '555 0100',
  timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
}
/**
 * The directories that the library is read from, each over the one before.
 * @param dataDirectory that of a utility; '' for the demo, whose rules, programmes and sheets ship with it
 */
export const libraryLayers = (root: string, dataDirectory: string): readonly string[] => [
  join(root, 'library'),
  dataDirectory ? join(dataDirectory, 'library') : join(root, 'library', 'demo'),
]

/** What came of reading the library; where installations share it, that of demo and utility apart. */
export const libraryKeptIn = (
  { UVANTA_LIBRARY_KEPT: shared }: NodeJS.ProcessEnv,
  dataDirectory: string,
  isDemo: boolean,
): string => (shared ? `${shared}.${isDemo ? 'demo' : 'own'}` : join(dataDirectory, 'library.json'))

/** The directory of a utility’s own data; '' where none is named, or the demo’s is. */
export const ownDataOf = ({ UVANTA_KIND, UVANTA_DATA }: NodeJS.ProcessEnv): string =>
  UVANTA_KIND === 'own' ? (UVANTA_DATA ?? '') : ''

/** Settings from the environment, which the launcher fills. @throws Error naming what is missing */
export function readConfig(env: NodeJS.ProcessEnv, root: string): Config {
  const need = (name: string): string => {
    const value = env[name]
    if (!value) throw new Error(`${name} is not set. Start Uvanta with ./uvanta start.`)
    return value
  }
  const port = Number(env.UVANTA_PORT ?? 4870)
  // Only a directory that is known to be the demo’s uses its name: nothing of it may reach a utility’s document.
  const isDemo = env.UVANTA_KIND === 'demo'
  const dataDirectory = need('UVANTA_DATA')
  return {
    port,
    publicUrl: env.UVANTA_PUBLIC_URL ?? `http://127.0.0.1:${port}`,
    dataDirectory,
    libraryDirectory: join(root, 'library'),
    ownLibrary: join(dataDirectory, 'library'),
    libraryLayers: libraryLayers(root, isDemo ? '' : dataDirectory),
    libraryKeptIn: libraryKeptIn(env, dataDirectory, isDemo),
    webDirectory: join(root, 'web', 'dist'),
    sessionSecret: need('UVANTA_SESSION_SECRET'),
    ...(env.UVANTA_KEYS_PASSPHRASE ? { keysPassphrase: env.UVANTA_KEYS_PASSPHRASE } : {}),
    officeNeedsSecondFactor: env.UVANTA_SECOND_FACTOR !== 'offered',
    isPublicUrlSet: Boolean(env.UVANTA_PUBLIC_URL),
    isDemo,
    utility: { ...(isDemo ? DEMO : {}), ...utilityIn(env) },
    ...(env.UVANTA_GAUGE_URL ? { gaugeUrl: env.UVANTA_GAUGE_URL } : {}),
    drainMs: Number(env.UVANTA_DRAIN_MS ?? 0),
    database: {
      host: '127.0.0.1',
      port: Number(need('UVANTA_DB_PORT')),
      user: env.UVANTA_DB_USER ?? 'uvanta',
      password: need('UVANTA_DB_PASSWORD'),
      database: env.UVANTA_DB_NAME ?? 'uvanta',
    },
  }
}

/** Only what is set: a command that runs without the settings of the service says nothing of the utility. */
const utilityIn = (env: NodeJS.ProcessEnv): UtilitySettings => ({
  ...(env.UVANTA_UTILITY ? { name: env.UVANTA_UTILITY } : {}),
  ...(env.UVANTA_UTILITY_PHONE ? { phone: env.UVANTA_UTILITY_PHONE } : {}),
  ...(env.UVANTA_CERTIFICATE_PREFIX ? { certificatePrefix: env.UVANTA_CERTIFICATE_PREFIX } : {}),
  ...(env.UVANTA_TIMEZONE ? { timeZone: env.UVANTA_TIMEZONE } : {}),
  ...(env.UVANTA_ZONE_WITHIN ? { zoneWithin: minutesFrom(env.UVANTA_ZONE_WITHIN) } : {}),
  ...(env.UVANTA_UNIT_PRESSURE
    ? { gaugePressureUnit: unitFrom(env, 'UVANTA_UNIT_PRESSURE', 'gaugePressure') }
    : {}),
  ...(env.UVANTA_UNIT_DIFFERENTIAL
    ? { differentialUnit: unitFrom(env, 'UVANTA_UNIT_DIFFERENTIAL', 'differential') }
    : {}),
})

/** @throws Error for what is no number of minutes up to 14 hours */
function minutesFrom(text: string): number {
  const minutes = Number(text)
  if (Number.isInteger(minutes) && minutes >= 0 && minutes <= 840) return minutes
  throw new Error(`UVANTA_ZONE_WITHIN is “${text}”. Set it to minutes, from 0 to 840.`)
}

/** A unit of the configuration. @throws Error naming the units that there are */
function unitFrom(
  env: NodeJS.ProcessEnv,
  name: string,
  dimension: 'gaugePressure' | 'differential',
): string {
  const unit = env[name] ?? 'psi'
  if (isUnitOf(dimension, unit)) return unit
  throw new Error(`${name} is “${unit}”. Set it to one of ${unitsOf(dimension).join(', ')}.`)
}

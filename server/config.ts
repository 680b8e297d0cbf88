import { join } from 'node:path'
import type { HouseUnits } from '@uvanta/contract'
import { isUnitOf, unitsOf } from '@uvanta/core/quantity'
import type { DatabaseSettings } from './store/database'

/** The utility that this installation belongs to. */
export interface UtilitySettings {
  /** As it stands on certificates. */
  readonly name: string
  /** Whom strangers ask about a certificate; empty where nobody is to be called. */
  readonly phone: string
  /** What the numbers of its certificates begin with. */
  readonly certificatePrefix: string
  /** IANA zone of its legal dates. */
  readonly timeZone: string
  /** Minutes by which the zone of a device may differ from it without a mark. */
  readonly zoneWithin: number
  /** Units that its people read and write pressures in, where an instrument shows no other. */
  readonly units: HouseUnits
}

export interface Config {
  readonly port: number
  /** The address that people and QR codes use. */
  readonly publicUrl: string
  readonly dataDirectory: string
  readonly libraryDirectory: string
  /** What came of reading the library, so that the same files are not proved at every start. */
  readonly libraryKeptIn: string
  readonly webDirectory: string
  readonly sessionSecret: string
  /** What the key that signs is encrypted with in its file; absent where the file system alone guards it. */
  readonly keysPassphrase?: string
  /** Planner, reviewer and administrator do nothing without a second factor. */
  readonly officeNeedsSecondFactor: boolean
  readonly utility: UtilitySettings
  /** WebSocket of a simulated test gauge; absent where there is none. */
  readonly gaugeUrl?: string
  readonly database: DatabaseSettings
}

/** Settings from the environment, which the launcher fills. @throws Error naming what is missing */
export function readConfig(env: NodeJS.ProcessEnv, root: string): Config {
  const need = (name: string): string => {
    const value = env[name]
    if (!value) throw new Error(`${name} is not set. Start Uvanta with ./uvanta start.`)
    return value
  }
  const port = Number(env.UVANTA_PORT ?? 4870)
  const dataDirectory = need('UVANTA_DATA')
  return {
    port,
    publicUrl: env.UVANTA_PUBLIC_URL ?? `http://127.0.0.1:${port}`,
    dataDirectory,
    libraryDirectory: join(root, 'library'),
    libraryKeptIn: env.UVANTA_LIBRARY_KEPT ?? join(dataDirectory, 'library.json'),
    webDirectory: join(root, 'web', 'dist'),
    sessionSecret: need('UVANTA_SESSION_SECRET'),
    ...(env.UVANTA_KEYS_PASSPHRASE ? { keysPassphrase: env.UVANTA_KEYS_PASSPHRASE } : {}),
    officeNeedsSecondFactor: env.UVANTA_SECOND_FACTOR !== 'offered',
    utility: {
      name: env.UVANTA_UTILITY ?? 'Larkhaven Gas & Water',
      phone: env.UVANTA_UTILITY_PHONE ?? '555 0100',
      certificatePrefix: env.UVANTA_CERTIFICATE_PREFIX ?? 'LH',
      timeZone: env.UVANTA_TIMEZONE ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
      zoneWithin: minutesFrom(env.UVANTA_ZONE_WITHIN ?? '60'),
      units: {
        gaugePressure: unitFrom(env, 'UVANTA_UNIT_PRESSURE', 'gaugePressure'),
        differential: unitFrom(env, 'UVANTA_UNIT_DIFFERENTIAL', 'differential'),
      },
    },
    ...(env.UVANTA_GAUGE_URL ? { gaugeUrl: env.UVANTA_GAUGE_URL } : {}),
    database: {
      host: '127.0.0.1',
      port: Number(need('UVANTA_DB_PORT')),
      user: env.UVANTA_DB_USER ?? 'uvanta',
      password: need('UVANTA_DB_PASSWORD'),
      database: env.UVANTA_DB_NAME ?? 'uvanta',
    },
  }
}

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

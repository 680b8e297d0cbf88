import { join } from 'node:path'
import type { DatabaseSettings } from './store/database'

export interface Config {
  readonly port: number
  /** The address that people and QR codes use. */
  readonly publicUrl: string
  readonly dataDirectory: string
  readonly libraryDirectory: string
  readonly webDirectory: string
  readonly sessionSecret: string
  /** IANA zone of the utility's legal dates. */
  readonly timeZone: string
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
  return {
    port,
    publicUrl: env.UVANTA_PUBLIC_URL ?? `http://127.0.0.1:${port}`,
    dataDirectory: need('UVANTA_DATA'),
    libraryDirectory: join(root, 'library'),
    webDirectory: join(root, 'web', 'dist'),
    sessionSecret: need('UVANTA_SESSION_SECRET'),
    timeZone: env.UVANTA_TIMEZONE ?? 'UTC',
    ...(env.UVANTA_GAUGE_URL ? { gaugeUrl: env.UVANTA_GAUGE_URL } : {}),
    database: {
      host: '127.0.0.1',
      port: Number(need('UVANTA_DB_PORT')),
      user: 'uvanta',
      password: need('UVANTA_DB_PASSWORD'),
      database: env.UVANTA_DB_NAME ?? 'uvanta',
    },
  }
}

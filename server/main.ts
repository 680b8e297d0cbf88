import { mkdirSync } from 'node:fs'
import { createServer } from 'node:http'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { pino } from 'pino'
import { openOrExplain } from './app'
import { readConfig } from './config'
import { makeServer } from './http/server'
import { seeToHourly } from './service/hourly'
import { inWorkers } from './heavy/heavyWork'
import { repinUnbegun } from './service/visit/repin'

/** dist/main.js and main.ts stand one and zero folders below server/. */
const here = dirname(fileURLToPath(import.meta.url))
const root = here.endsWith('dist') ? join(here, '..', '..') : join(here, '..')

const logger = pino({ level: process.env.UVANTA_LOG ?? 'warn' })
const settings = readConfig(process.env, root)
/** Nobody waits longer for a database that stands still; what takes long is no request. */
const PATIENCE_MS = 10_000
const config = { ...settings, database: { ...settings.database, patienceMs: PATIENCE_MS } }
const app = await openOrExplain(config, inWorkers())
await repinUnbegun(app)
// Its own library is followed from the start, before there is anything in it.
if (!config.isDemo) mkdirSync(config.ownLibrary, { recursive: true })
app.shelf.follow(
  () =>
    void repinUnbegun(app).catch((error: unknown) =>
      logger.error({ err: error }, 'planned visits keep their versions'),
    ),
)
seeToHourly(app, (error) => logger.error({ err: error }, 'what is seen to every hour failed'))
const server = makeServer(app, logger)
const http = createServer(server)

http.listen(config.port, '127.0.0.1', () => {
  process.stdout.write(`Uvanta answers at ${config.publicUrl}\n`)
})

/** Lets the proxy notice that it takes nothing more, finishes what is under way, then closes the database. */
function stop(): void {
  server.locals.isEnding = true
  setTimeout(close, config.drainMs)
}

function close(): void {
  app.shelf.close()
  http.close(() => {
    void Promise.all([app.db.sequelize.close(), app.heavy.close()]).then(() => process.exit(0))
  })
  http.closeIdleConnections()
  setTimeout(() => http.closeAllConnections(), 3_000).unref()
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)

import { createHash } from 'node:crypto'
import type { Express, Request, RequestHandler } from 'express'
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client'
import type { App } from '../context'

/** How long the database may take to say that it is there, ms. */
const ANSWERS_IN = 2_000
const SECONDS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5]

/**
 * What a supervisor and a monitor ask: `/healthz`, the process answers; `/readyz`, it can work, with
 * the versions it works by; `/metrics` in the text format of Prometheus, for this machine alone.
 */
export function serveHealth(server: Express, app: App): void {
  const registry = new Registry()
  collectDefaultMetrics({ register: registry, prefix: 'uvanta_' })
  const requests = new Histogram({
    name: 'uvanta_http_seconds',
    help: 'Time that answers took, by method, route and status',
    labelNames: ['method', 'route', 'status'] as const,
    buckets: SECONDS,
    registers: [registry],
  })
  const faults = new Counter({
    name: 'uvanta_faults_total',
    help: 'Answers that were a fault of ours',
    registers: [registry],
  })
  new Gauge({
    name: 'uvanta_database_up',
    help: '1 while the database answers',
    registers: [registry],
    async collect() {
      this.set((await answers(app)) ? 1 : 0)
    },
  })

  server.get('/healthz', (_req, res) => void res.type('text/plain').send('ok\n'))
  server.get('/readyz', async (_req, res) => {
    const database = await answers(app)
    const isReady = database && server.locals.isEnding !== true
    res.status(isReady ? 200 : 503).json({ database, library: fingerprint(app) })
  })
  server.get('/metrics', here, async (_req, res) => {
    res.type(registry.contentType).send(await registry.metrics())
  })
  server.use((req, res, next) => {
    const took = requests.startTimer()
    res.on('finish', () => {
      took({ method: req.method, route: routeOf(req), status: String(res.statusCode) })
      if (res.statusCode === 500) faults.inc()
    })
    next()
  })
}

/** The pattern of a route, never the address: an id in a label is personal data, and a series each. */
const routeOf = (req: Request): string =>
  (req.route as { path?: string } | undefined)?.path ??
  (req.path.startsWith('/assets') ? '/assets' : 'other')

/** Whether the database answers in time. */
async function answers(app: App): Promise<boolean> {
  const late = new Promise<false>((done) => setTimeout(() => done(false), ANSWERS_IN).unref())
  const asked = app.db.sequelize.query('SELECT 1').then(
    () => true,
    () => false,
  )
  return Promise.race([asked, late])
}

/** Tells processes apart that follow different versions of the house’s files. */
const fingerprint = ({ shelf: { library } }: App): string =>
  createHash('sha256')
    .update(
      [...library.guides, ...library.rulePacks, ...library.procedures]
        .map((e) => `${e.id}.${e.version}`)
        .join(' '),
    )
    .digest('hex')
    .slice(0, 12)

/** For this machine alone; what comes by way of a proxy does not. */
const here: RequestHandler = (req, res, next) => {
  const direct = ['127.0.0.1', '::1', '::ffff:127.0.0.1'].includes(req.socket.remoteAddress ?? '')
  if (direct && !req.get('X-Forwarded-For')) return next()
  res.status(404).type('text/plain').send('There is nothing here.\n')
}

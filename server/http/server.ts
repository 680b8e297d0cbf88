import { join } from 'node:path'
import type { Person } from '@uvanta/contract'
import compression from 'compression'
import express, { type Express, type Request, type RequestHandler, type Response } from 'express'
import packedFiles from 'express-static-gzip'
import helmet from 'helmet'
import type { Logger } from 'pino'
import type { App } from '../context'
import { ServiceError } from '../service/errors'
import { personOfKey } from '../service/people/apiKeys'
import { serveHealth } from './health'
import { challengeLimit, computeLimit } from './limits'
import { isOnThisMachine, ownHostOnly, sameOriginOnly } from './ownHost'
import { problemHandler, sendProblem } from './problem'
import { roomOn, withRoom } from './room'
import { requestLog } from './requestLog'
import { type Answered, binder } from './route'
import { bindCertificates } from './routes/certificates'
import { bindDescription } from './routes/description'
import { bindLibrary } from './routes/library'
import { bindOffice } from './routes/office'
import { bindSession } from './routes/session'
import { bindVisits } from './routes/visits'
import { type PlacePage, placePages } from './placePage'
import { type Sessions, sessions } from './sessions'
import { startingVisit } from './startingVisit'
import { verifyPage } from './verifyPage'

const YEAR_MS = 31_536_000_000

/**
 * The whole HTTP face: interface, public key, documents, and the web application itself.
 * @param answered looks at every answer before it is sent, for tests of the contract
 */
export function makeServer(app: App, logger: Logger, answered?: Answered): Express {
  const server = express()
  server.disable('x-powered-by')
  server.set('trust proxy', 'loopback')
  server.set('query parser', 'simple')
  server.use(requestLog(logger))
  serveHealth(server, app)
  server.use(headers(app.config.gaugeUrl))
  server.use(ownHostOnly(app.config.publicUrl))
  server.use(compression())

  server.get('/.well-known/jwks.json', (_req, res) => {
    res.setHeader('Cache-Control', 'public, max-age=3600')
    res.json({ keys: app.keys.published() })
  })
  const hasRoom = roomOn(app.config.dataDirectory)
  const { handler, personOf } = sessions(app, hasRoom)
  server.use(
    '/api',
    notKept,
    sameOriginOnly(app.config.publicUrl),
    withRoom(hasRoom),
    jsonBody,
    handler,
  )
  server.use(apiRouter(app, personOf, answered))
  server.use('/api', (_req, res) =>
    sendProblem(res, 404, {
      code: 'no-such-address',
      why: 'There is no such address.',
      remedy: 'See /api/v1/docs for what there is.',
    }),
  )

  server.get('/verify/:code', verifyPage(app))
  serveWeb(server, app.config.webDirectory, mayWork({ handler, personOf }), (page, path) =>
    startingVisit(app, page, path),
  )
  server.use(problemHandler)
  return server
}

/** Bodies with traces, pictures’ worth of points and tables are large; all others are short. */
const LARGE_BODIES =
  /^\/v1\/(visits\/[^/]+\/(events|sign|correct)|compute\/[^/]+|equipment\/import)$/
const json = (limit: string): RequestHandler =>
  // What is compressed is small on the wire and large in memory: it is not taken.
  express.json({ limit, strict: true, inflate: false })
const [large, small] = [json('1mb'), json('100kb')]
const jsonBody: RequestHandler = (req, res, next) =>
  (LARGE_BODIES.test(req.path) ? large : small)(req, res, next)

function apiRouter(app: App, personOf: Sessions['personOf'], answered?: Answered) {
  const router = express.Router()
  const bind = binder(router, (req) => askerOf(app, req, personOf), answered)
  router.use('/api/v1/compute', computeLimit(app))
  router.use(['/api/v1/session/challenge', '/api/v1/session/passkey/begin'], challengeLimit(app))
  bindSession(app, bind)
  bindOffice(app, bind)
  bindVisits(app, bind)
  bindCertificates(app, bind)
  bindLibrary(app, bind)
  bindDescription(bind)
  return router
}

/** What pages may use of a device: pictures are taken by its own camera, an instrument hangs at its serial port. */
const PERMISSIONS =
  'camera=(self), serial=(self), geolocation=(), microphone=(), payment=(), usb=()'

/** The simulated gauge answers on this machine: only a browser that runs here can reach it. */
function headers(gaugeUrl: string | undefined): RequestHandler {
  const here = helmet(securityHeaders(gaugeUrl))
  const elsewhere = helmet(securityHeaders(undefined))
  return (req, res, next) => {
    res.setHeader('Permissions-Policy', PERMISSIONS)
    ;(isOnThisMachine(req) ? here : elsewhere)(req, res, next)
  }
}

const securityHeaders = (gaugeUrl: string | undefined) => ({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'"],
      styleSrc: ["'self'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      fontSrc: ["'self'"],
      connectSrc: ["'self'", ...(gaugeUrl ? [gaugeUrl] : [])],
      workerSrc: ["'self'", 'blob:'],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
    },
  },
  // The application is served on loopback without TLS; a proxy that adds TLS adds this header too.
  strictTransportSecurity: false,
  crossOriginOpenerPolicy: { policy: 'same-origin' as const },
  referrerPolicy: { policy: 'same-origin' as const },
})

/** What is answered to one person is kept by no browser and no proxy, unless its handler says otherwise. */
const notKept: RequestHandler = (_req, res, next) => {
  res.setHeader('Cache-Control', 'no-store')
  next()
}

/** Whoever is signed in; or, for reading alone, whoever a key stands for. */
async function askerOf(
  app: App,
  req: Request,
  personOf: Sessions['personOf'],
): Promise<Person | null> {
  const [, secret] = /^Bearer (\S{1,200})$/.exec(req.get('Authorization') ?? '') ?? []
  if (secret === undefined) return personOf(req)
  if (req.method !== 'GET')
    throw new ServiceError('forbidden', 'A key only reads.', 'Sign in to change something.')
  return personOfKey(app, secret)
}

/** Whether somebody is there who may work at once; where that cannot be known, nobody is. */
const mayWork =
  ({ handler, personOf }: Sessions) =>
  async (req: Request, res: Response): Promise<boolean> => {
    try {
      await new Promise<void>((read, fail) => {
        handler(req, res, (error?: unknown) => (error ? fail(error as Error) : read()))
      })
      const person = await personOf(req)
      return person !== null && !person.mustChangePassword && !person.mustSetSecondFactor
    } catch {
      return false
    }
  }

function serveWeb(
  server: Express,
  directory: string,
  isAtWork: (req: Request, res: Response) => Promise<boolean>,
  begun: (page: string, path: string) => Promise<string>,
): void {
  server.use(
    '/assets',
    // As the build packed them, and not anew for each request.
    packedFiles(join(directory, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: { immutable: true, maxAge: YEAR_MS, fallthrough: false },
    }),
  )
  server.use(express.static(directory, { index: false, maxAge: 0 }))
  let pageOf: ((path: string) => PlacePage) | undefined
  server.get('/{*path}', async (req, res) => {
    pageOf ??= placePages(directory)
    const { page, atWork } = pageOf(req.path)
    const own =
      atWork && (await isAtWork(req, res))
        ? await begun(atWork, req.path).catch(() => atWork)
        : undefined
    if (atWork) res.vary('Cookie')
    res.setHeader('Cache-Control', own ? 'no-store' : 'no-cache')
    res.type('html').send(own ?? page)
  })
}

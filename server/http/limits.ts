import type { RequestHandler } from 'express'
import { ipKeyGenerator, type Options, rateLimit, type Store } from 'express-rate-limit'
import type { App } from '../context'
import { counted } from '../store/counted'
import { sendProblem } from './problem'

const MINUTE_MS = 60_000

/** What is asked for without signing in makes a session that has to be kept. */
export const challengeLimit = (app: App): RequestHandler =>
  limited(app, {
    limit: 30,
    keyGenerator: (req) => `challenge ${ipKeyGenerator(req.ip ?? '')}`,
    handler: (_req, res) =>
      sendProblem(res, 429, {
        code: 'too-many',
        why: 'Too many devices sign in from this address.',
        remedy: 'Wait a minute, then go on.',
      }),
  })

/** Computations take threads that all requests share. */
export const computeLimit = (app: App): RequestHandler =>
  limited(app, {
    limit: 120,
    keyGenerator: (req) => `compute ${req.session.personId ?? ipKeyGenerator(req.ip ?? '')}`,
    handler: (_req, res) =>
      sendProblem(res, 429, {
        code: 'too-many',
        why: 'Too many computations in a minute.',
        remedy: 'Wait a little, then go on.',
      }),
  })

const limited = (
  app: App,
  options: Pick<Options, 'handler' | 'keyGenerator'> & { limit: number },
): RequestHandler =>
  rateLimit({
    ...options,
    windowMs: MINUTE_MS,
    standardHeaders: true,
    legacyHeaders: false,
    store: inDatabase(app),
  })

/** Where one process counts, the others count on. */
const inDatabase = (app: App): Store => ({
  localKeys: false,
  async increment(key) {
    const now = app.now().toJSDate()
    const { count, since } = await counted(app.db.sequelize, 'request_count', key, now, MINUTE_MS)
    return { totalHits: count, resetTime: new Date(since.getTime() + MINUTE_MS) }
  },
  async decrement(key) {
    await app.db.requestCounts.decrement('count', { where: { subject: key } })
  },
  async resetKey(key) {
    await app.db.requestCounts.destroy({ where: { subject: key } })
  },
})

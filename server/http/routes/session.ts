import { api, type Person } from '@uvanta/contract'
import type { Request, Router } from 'express'
import { rateLimit } from 'express-rate-limit'
import type { App } from '../../app'
import { changePassword, signIn } from '../../service/people'
import { sendProblem } from '../problem'
import type { Bind } from '../route'

const WINDOW_MS = 10 * 60_000
const ATTEMPTS = 8

export function bindSession(app: App, bind: Bind, router: Router): void {
  router.post(
    '/api/v1/session',
    rateLimit({
      windowMs: WINDOW_MS,
      limit: ATTEMPTS,
      skipSuccessfulRequests: true,
      standardHeaders: true,
      legacyHeaders: false,
      // One name is throttled for everyone, so that guessing from many places does not help.
      keyGenerator: (req) =>
        `name:${String((req.body as { username?: unknown })?.username)
          .toLowerCase()
          .slice(0, 80)}`,
      handler: (_req, res) =>
        sendProblem(
          res,
          429,
          'Too many wrong passwords for this name. Wait ten minutes, then try again.',
        ),
    }),
  )

  bind(api.session.signIn, async ({ body, req }) => {
    const person = await signIn(app, body.username, body.password)
    await renew(req, person)
    return person
  })
  bind(api.session.signOut, async ({ req, res }) => {
    await new Promise<void>((done) => req.session.destroy(() => done()))
    res.clearCookie('uvanta')
  })
  bind(api.session.me, ({ person }) => ({ person, today: app.today() }))
  bind(api.session.changePassword, ({ actor, body }) =>
    changePassword(app, actor(), body.current, body.next),
  )
}

/** A new session on every sign-in, so that a planted cookie gains nothing. */
function renew(req: Request, person: Person): Promise<void> {
  return new Promise((done, failed) => {
    req.session.regenerate((error) => {
      if (error) return failed(error as Error)
      req.session.personId = person.id
      req.session.save((e) => (e ? failed(e as Error) : done()))
    })
  })
}

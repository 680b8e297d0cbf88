import { api, type Endpoint, type KeyScope, type Person, type Role } from '@uvanta/contract'
import { check } from '@uvanta/core/schema'
import express, { type Request, type RequestHandler, type Response, type Router } from 'express'
import { ServiceError } from '../service/errors'
import { sendProblem } from './problem'

/** What a handler is given: checked input and who asks. */
export interface Call<P, Q, B> {
  readonly params: P
  readonly query: Q
  readonly body: B
  /** Who is signed in, if anyone. */
  readonly person: Person | null
  /** Who is signed in. @throws ServiceError when nobody is */
  readonly actor: () => Person
  /** Version named in If-Match; only for endpoints that change a versioned record. */
  readonly version: number
  readonly req: Request
  readonly res: Response
}

export type Handler<P, Q, B, R> = (call: Call<P, Q, B>) => Promise<R> | R
export type Bind = <P, Q, B, R>(e: Endpoint<P, Q, B, R>, handler: Handler<P, Q, B, R>) => void

/** Looks at an answer before it is sent. */
export type Answered = (e: Endpoint, answer: unknown) => void

/** A photograph as a device sends it, made smaller there. */
const UPLOAD_LIMIT = '3mb'

/** Binds described endpoints to handlers: access, checking, versions and answers in one place. */
export function binder(
  router: Router,
  personOf: (req: Request) => Promise<Person | null>,
  answered?: Answered,
): Bind {
  return (e, handler) => {
    const path = e.path.replaceAll(/\{(\w+)\}/g, ':$1')
    const readUpload = e.upload && express.raw({ type: [...e.upload], limit: UPLOAD_LIMIT })
    router[e.method](path, async (req: Request, res: Response) => {
      const person = await personOf(req)
      requireAccess(e, person)
      requireScope(e, person)
      requireOwnSignIn(e, person)
      const version = e.versioned ? versionOf(req, res) : 0
      if (version === null) return
      if (e.body && !req.is('application/json')) {
        return sendProblem(res, 415, {
          code: 'content-kind',
          why: 'The content is not JSON.',
          remedy: 'Send JSON, with Content-Type: application/json.',
        })
      }
      if (e.upload && !req.is([...e.upload]))
        return sendProblem(res, 415, {
          code: 'content-kind',
          why: 'This kind of file is not taken here.',
          remedy: `Send one of ${e.upload.join(', ')}.`,
        })
      // Not before access is granted.
      if (readUpload) await passed(readUpload, req, res)
      const result = await handler({
        params: (e.params ? check(e.params, { ...req.params }) : undefined) as never,
        query: (e.query ? check(e.query, { ...req.query }) : undefined) as never,
        body: (e.body ? check(e.body, req.body) : undefined) as never,
        person,
        actor: () => {
          if (!person)
            throw new ServiceError('not-signed-in', 'Nobody is signed in.', 'Sign in first.')
          return person
        },
        version,
        req,
        res,
      })
      answered?.(e, result)
      if (res.headersSent) return
      if (result === undefined) return void res.status(204).end()
      const versioned = result as { version?: number } | null
      if (typeof versioned?.version === 'number') res.setHeader('ETag', `"${versioned.version}"`)
      res.json(result)
    })
  }
}

function requireAccess(e: Endpoint, person: Person | null): void {
  if (e.access === 'public') return
  if (!person) throw new ServiceError('not-signed-in', 'Nobody is signed in.', 'Sign in first.')
  if (e.access === 'signed-in') return
  const allowed: readonly Role[] = e.access
  if (!person.roles.some((r) => allowed.includes(r))) {
    throw new ServiceError(
      'forbidden',
      `This is for the ${allowed.join(' or ')}.`,
      'Ask one of them.',
    )
  }
}

/** What of the interface a scope of a key opens, by tag; people, keys, devices and the audit it never does. */
const SCOPE_OF: Readonly<Record<string, KeyScope>> = {
  Register: 'register',
  Gauges: 'register',
  Tag: 'register',
  Visits: 'visits',
  Certificates: 'certificates',
  Stock: 'stock',
}
const FOR_ALL_KEYS = ['Library', 'Computations', 'Description', 'Verification']

/** A key reads what it was made for. */
function requireScope(e: Endpoint, person: Person | null): void {
  if (!person?.scopes || e.access === 'public' || FOR_ALL_KEYS.includes(e.tag)) return
  const scope = SCOPE_OF[e.tag]
  if (scope && person.scopes.includes(scope)) return
  throw new ServiceError(
    'forbidden',
    scope ? `This key was not made to read “${scope}”.` : 'A key does not read this.',
    'Ask the administrator for a key that does.',
    { code: 'key-scope' },
  )
}

const isOneOf = (e: Endpoint, those: readonly Pick<Endpoint, 'method' | 'path'>[]) =>
  those.some((o) => o.method === e.method && o.path === e.path)
/** What somebody may do whose password is known to whoever gave it. */
const BEFORE_PASSWORD = [api.session.changePassword]
/** And what somebody without a second factor who has to have one. */
const BEFORE_FACTOR = [
  ...BEFORE_PASSWORD,
  api.session.beginSecondFactor,
  api.session.confirmSecondFactor,
]

/** Nobody works with a password that somebody else chose, nor without the second factor that his role wants. */
function requireOwnSignIn(e: Endpoint, person: Person | null): void {
  if (!person || e.access === 'public') return
  if (person.mustChangePassword && !isOneOf(e, BEFORE_PASSWORD))
    throw new ServiceError(
      'forbidden',
      'Your password was chosen by somebody else.',
      'Change it first, under your name.',
      { code: 'password-to-change' },
    )
  if (person.mustSetSecondFactor && !isOneOf(e, BEFORE_FACTOR))
    throw new ServiceError(
      'forbidden',
      'Your role asks for a second factor.',
      'Set it up first, under your name.',
      { code: 'second-factor-to-set' },
    )
}

/** The version in If-Match, or null after the problem has been sent. */
function versionOf(req: Request, res: Response): number | null {
  const match = /^"(\d{1,9})"$/.exec(req.get('If-Match') ?? '')
  if (match) return Number(match[1])
  sendProblem(res, 428, {
    code: 'version-missing',
    why: 'It is not said which version is changed.',
    remedy: 'Send If-Match with the ETag you were given.',
  })
  return null
}

/** Where a request comes from, as the proxy on this machine says. */
export const addressOf = (req: Request): string => req.ip ?? 'unknown'

/** Sends a file. */
export function sendFile(
  res: Response,
  name: string,
  type: string,
  content: Buffer | string,
): void {
  res.setHeader('Content-Disposition', `attachment; filename="${name}"`)
  res.type(type).send(content)
}

/** Has a middleware do its part. @throws what it hands on */
const passed = (middleware: RequestHandler, req: Request, res: Response): Promise<void> =>
  new Promise((resolve, reject) => {
    middleware(req, res, (error: unknown) => (error ? reject(error as Error) : resolve()))
  })

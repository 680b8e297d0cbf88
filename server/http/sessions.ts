import type { Id } from '@uvanta/core/schema'
import connectSession from 'connect-session-sequelize'
import type { Person } from '@uvanta/contract'
import type { Request, RequestHandler } from 'express'
import session, { type SessionData } from 'express-session'
import { DataTypes, QueryTypes } from 'sequelize'
import type { App } from '../context'
import { type AskedPerson, PERSON_SQL, readPerson, toPerson } from '../service/people/people'
import { ServiceError } from '../service/errors'
import type { HasRoom } from './room'

declare module 'express-session' {
  interface SessionData {
    personId: Id<'person'>
    /** When somebody signed in, ms: however busy a session is, it ends a day after that. */
    begunAt: number
    /** Browser and system, in words. */
    device: string
    /** What a device or a passkey has to sign to sign in. */
    challenge: string
    /** What a new passkey has to sign. */
    newPasskey: string
  }
}

const HOUR = 3_600_000
/** A session ends when it was not used for so long. */
const IDLE_HOURS = 14
/** And so long after it began. */
const LONGEST_HOURS = 24
/** Written down as used at most once in so long: a look at a list is no reason to write. */
const TOUCH_MS = 60_000

export interface Sessions {
  readonly handler: RequestHandler
  /** Whose session a request belongs to; null for nobody’s, and for somebody who was let go. */
  readonly personOf: (req: Request) => Promise<Person | null>
}

/**
 * Sessions in the database, which every process of the application reads, each with its person in the same statement:
 * every request asks for both.
 */
export function sessions(app: App, hasRoom: HasRoom): Sessions {
  /** People just read with a session, until the request that it was read for asks. */
  const read = new Map<string, Person>()
  const table = app.db.sequelize.define(
    'session',
    {
      sid: { type: DataTypes.STRING(64), primaryKey: true },
      expires: DataTypes.DATE(3),
      data: DataTypes.TEXT,
    },
    { tableName: 'session', timestamps: true, underscored: true },
  )
  const Store = connectSession(session.Store)
  const store = new Store({
    db: app.db.sequelize,
    table: table.name,
    checkExpirationInterval: 15 * 60_000,
    expiration: IDLE_HOURS * HOUR,
  })
  // One that has run out is none, though nobody has swept it away yet.
  store.get = (sid, fn) =>
    void readSession(app, sid).then(
      ({ data, person }) => {
        if (person) read.set(sid, person)
        else read.delete(sid)
        fn(null, data)
      },
      (error: unknown) => fn(error),
    )
  const touch = store.touch.bind(store)
  const touched = new Map<string, number>()
  store.touch = (sid: string, data: SessionData, fn?: (error?: unknown) => void) => {
    const now = Date.now()
    if (now - (touched.get(sid) ?? 0) < TOUCH_MS) return fn?.()
    for (const [old, at] of touched) if (now - at > TOUCH_MS) touched.delete(old)
    touched.set(sid, now)
    // Reading goes on where nothing can be written.
    void hasRoom().then((room) => (room ? touch(sid, data, fn) : fn?.()))
  }
  const handler = session({
    name: 'uvanta',
    secret: app.config.sessionSecret,
    store,
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: IDLE_HOURS * HOUR },
  })
  return {
    handler,
    async personOf({ sessionID, session: { personId } }) {
      const withSession = read.get(sessionID)
      read.delete(sessionID)
      if (!personId) return null
      const person = withSession?.id === personId ? withSession : await findPerson(app, personId)
      return person?.active ? person : null
    },
  }
}

/** Somebody who was removed is nobody; a database that does not answer is no sign-out. */
const findPerson = (app: App, id: Id<'person'>): Promise<Person | null> =>
  readPerson(app, id).catch((error: unknown) => {
    if (error instanceof ServiceError && error.kind === 'not-found') return null
    throw error
  })

async function readSession(
  app: App,
  sid: string,
): Promise<{ readonly data: SessionData | null; readonly person: Person | null }> {
  const [row] = await app.db.sequelize.query<{ data: string } & (AskedPerson | { id: null })>(
    `SELECT s.data, ${PERSON_SQL} FROM session s
     LEFT JOIN person p ON p.id = CAST(JSON_VALUE(s.data, '$.personId') AS UUID)
     WHERE s.sid = :sid AND s.expires > UTC_TIMESTAMP(3)`,
    { replacements: { sid }, type: QueryTypes.SELECT },
  )
  if (!row) return { data: null, person: null }
  const data = JSON.parse(row.data) as SessionData
  const over = app.now().toMillis() - data.begunAt > LONGEST_HOURS * HOUR
  return { data: over ? null : data, person: over || row.id === null ? null : toPerson(app, row) }
}

import type { Id } from '@uvanta/core/schema'
import connectSession from 'connect-session-sequelize'
import type { RequestHandler } from 'express'
import session, { type SessionData } from 'express-session'
import { DataTypes, QueryTypes } from 'sequelize'
import type { App } from '../context'
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

/** Sessions in the database, which every process of the application reads. */
export function sessions(app: App, hasRoom: HasRoom): RequestHandler {
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
    void read(app, sid).then(
      (data) => fn(null, data),
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
  return session({
    name: 'uvanta',
    secret: app.config.sessionSecret,
    store,
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: IDLE_HOURS * HOUR },
  })
}

async function read(app: App, sid: string): Promise<SessionData | null> {
  const [row] = await app.db.sequelize.query<{ data: string }>(
    'SELECT data FROM session WHERE sid = :sid AND expires > UTC_TIMESTAMP(3)',
    { replacements: { sid }, type: QueryTypes.SELECT },
  )
  if (!row) return null
  const data = JSON.parse(row.data) as SessionData
  const over = app.now().toMillis() - data.begunAt > LONGEST_HOURS * HOUR
  return over ? null : data
}

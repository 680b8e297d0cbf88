import type { EndedKeys, Person, SessionLine } from '@uvanta/contract'
import type { Id } from '@uvanta/core/schema'
import { createHash } from 'node:crypto'
import { QueryTypes } from 'sequelize'
import type { App } from '../../context'
import { audited, recordAudit } from '../audit'
import { notFound } from '../errors'
import { endSessions } from './endSessions'
import { revokeAll } from './revokeAll'

interface SessionRow {
  readonly sid: string
  readonly data: string
  readonly usedAt: Date
}

/**
 * Keeps a session that somebody has just begun, and that it was begun: neither stands without the other.
 * @param how from what, in words
 */
export const openSession = (
  app: App,
  session: { readonly sid: string; readonly data: string; readonly expires: Date },
  person: Person,
  how: string,
): Promise<void> =>
  app.db.sequelize.transaction(async (transaction) => {
    await app.db.sequelize.query(
      `INSERT INTO session (sid, expires, data, created_at, updated_at)
       VALUES (:sid, :expires, :data, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3))`,
      { replacements: session, transaction },
    )
    await recordAudit(app, person, 'signed in', how, transaction)
  })

/** Ends the session in which its person signs out, and writes it down. */
export const closeSession = (app: App, sid: string, person: Person, how: string): Promise<void> =>
  app.db.sequelize.transaction(async (transaction) => {
    await app.db.sequelize.query('DELETE FROM session WHERE sid = :sid', {
      replacements: { sid },
      transaction,
    })
    await recordAudit(app, person, 'signed out', how, transaction)
  })

/** What a session is called outside: its own id is what signs somebody in. */
const nameOf = (sid: string) => createHash('sha256').update(`name ${sid}`).digest('hex')

const rowsOf = (app: App, personId: string) =>
  app.db.sequelize.query<SessionRow>(
    `SELECT sid, data, updated_at AS usedAt FROM session
     WHERE JSON_VALUE(data, '$.personId') = :personId AND expires > UTC_TIMESTAMP(3)
     ORDER BY updated_at DESC`,
    { replacements: { personId }, type: QueryTypes.SELECT },
  )

/** Where a person is signed in, the newest use first. */
export async function listSessions(
  app: App,
  personId: string,
  here: string,
): Promise<SessionLine[]> {
  const rows = await rowsOf(app, personId)
  return rows.map(({ sid, data, usedAt }) => {
    const { begunAt, device } = JSON.parse(data) as { begunAt: number; device?: string }
    return {
      id: nameOf(sid),
      begunAt: new Date(begunAt).toISOString(),
      usedAt: new Date(usedAt).toISOString(),
      device: device ?? 'not known',
      here: sid === here,
    }
  })
}

/** Ends one session of a person. */
export async function endSession(app: App, personId: string, name: string): Promise<void> {
  const row = (await rowsOf(app, personId)).find(({ sid }) => nameOf(sid) === name)
  if (!row) throw notFound('session')
  await app.db.sequelize.query('DELETE FROM session WHERE sid = :sid', {
    replacements: { sid: row.sid },
  })
}

/** Ends every session of a person but the one that asks for it. */
export const endOtherSessions = (
  app: App,
  person: Person,
  here: string,
  keepDevice: Id<'device'> | undefined,
): Promise<{ ended: EndedKeys }> =>
  audited(app, person, 'signed out everywhere else', person.username, async (transaction) => {
    await endSessions(app, person.id, transaction, here)
    return { ended: await revokeAll(app, person, person.id, transaction, keepDevice) }
  })

const BROWSERS = [
  ['Edg/', 'Edge'],
  ['OPR/', 'Opera'],
  ['Firefox/', 'Firefox'],
  ['Chrome/', 'Chromium'],
  ['Safari/', 'Safari'],
] as const
const SYSTEMS = [
  ['Android', 'Android'],
  ['iPhone', 'a telephone'],
  ['iPad', 'a tablet'],
  ['Windows', 'Windows'],
  ['Mac OS', 'macOS'],
  ['Linux', 'Linux'],
] as const

/** A browser and its system in words, from what it says of itself; nothing finer is kept. */
export function deviceWords(agent: string | undefined): string {
  const found = (list: readonly (readonly [string, string])[]) =>
    list.find(([sign]) => agent?.includes(sign))?.[1]
  const browser = found(BROWSERS)
  const system = found(SYSTEMS)
  if (!browser) return 'another program'
  return system ? `${browser} on ${system}` : browser
}

import { randomBytes } from 'node:crypto'
import type { Person } from '@uvanta/contract'
import { QueryTypes, type Transaction } from 'sequelize'
import type { App } from '../../context'
import { recordAudit } from '../audit'
import { hashPassword } from '../people/people'
import { UVANTA } from '../visit/repin'
import { forgottenWords, sealNew, unseal } from './seals'

/** What was deleted, or would be. */
export interface Forgotten {
  readonly visits: number
  readonly auditLines: number
  readonly people: number
}

/** Somebody who left, once nothing that is kept names him. */
export const SOMEBODY = 'Somebody who left'

const VISITS = 200
const LINES = 1_000

/**
 * Visits all of whose entries are older than a moment, but the last signed one of each piece of equipment and the
 * last with a certificate: on these rests what is known of it.
 */
const OLD_VISITS = `FROM visit v
  WHERE v.planned_on < :day
    AND NOT EXISTS (SELECT 1 FROM visit_event e WHERE e.visit_id = v.id AND e.server_time >= :until)
    AND NOT EXISTS (SELECT 1 FROM equipment_status s WHERE s.last_visit_id = v.id)
    AND v.id <> COALESCE((
      SELECT n.id FROM visit n WHERE n.equipment_id = v.equipment_id AND n.state = 'signed'
      ORDER BY n.planned_on DESC, n.id DESC LIMIT 1), '00000000-0000-0000-0000-000000000000')
    AND v.id <> COALESCE((
      SELECT c.visit_id FROM certificate c WHERE c.equipment_id = v.equipment_id
      ORDER BY c.issued_at DESC LIMIT 1), '00000000-0000-0000-0000-000000000000')`

/** What has been kept for longer than it has to be. @param until everything before this moment */
export async function countForgettable(app: App, until: Date): Promise<Omit<Forgotten, 'people'>> {
  const count = async (from: string, replacements: Record<string, unknown>) => {
    const [row] = await app.db.sequelize.query<{ n: number }>(`SELECT COUNT(*) AS n ${from}`, {
      replacements,
      type: QueryTypes.SELECT,
    })
    return row?.n ?? 0
  }
  return {
    visits: await count(OLD_VISITS, asText(until)),
    auditLines: await count('FROM audit WHERE at < :until', { until }),
  }
}

/** Entries and plans keep moment and day as text. */
const asText = (until: Date) => ({
  until: until.toISOString(),
  day: until.toISOString().slice(0, 10),
})

/**
 * Deletes what is older than records are kept: visits whole, with photographs and certificates; lines of the audit;
 * the names of people who left, once nothing names them. Of a visit stays what its log ended with, sealed, and of a
 * certificate that there was one of its number: chains, seals and heads of days hold as before. Needs the rights of the
 * owner of the schema. What is broken off is finished by the next run.
 * @param until everything before this moment
 */
export async function forget(app: App, until: Date): Promise<Forgotten> {
  await app.db.sequelize.transaction(async (transaction) => {
    await app.db.forgettings.create({ until, at: app.now().toJSDate() }, { transaction })
    const subject = `records from before ${until.toISOString().slice(0, 10)}`
    await recordAudit(app, UVANTA as Person, 'deleted what is kept no longer', subject, transaction)
  })
  const visits = await forgetVisits(app, until)
  const auditLines = await forgetAudit(app, until)
  await app.db.stockMoves.update(
    { person: '' },
    { where: app.db.sequelize.literal(`at < ${app.db.sequelize.escape(until)} AND person <> ''`) },
  )
  return { visits, auditLines, people: await forgetPeople(app) }
}

async function forgetVisits(app: App, until: Date): Promise<number> {
  let visits = 0
  for (;;) {
    const rows = await app.db.sequelize.query<{ id: string }>(
      `SELECT v.id ${OLD_VISITS} LIMIT ${VISITS}`,
      { replacements: asText(until), type: QueryTypes.SELECT },
    )
    for (const { id } of rows)
      await app.db.sequelize.transaction((transaction) => forgetVisit(app, id, transaction))
    visits += rows.length
    if (rows.length < VISITS) return visits
  }
}

async function forgetVisit(app: App, id: string, transaction: Transaction): Promise<void> {
  const { db } = app
  const visit = await db.visits.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE })
  const last = await db.visitEvents.findOne({
    where: { visitId: id },
    order: [['seq', 'DESC']],
    transaction,
  })
  if (!visit || !last) throw new Error(`The visit ${id} has no entry.`)
  const own = { where: { visitId: id }, transaction }
  const certificates = await db.certificates.findAll(own)
  const photos = await db.photos.findAll({ ...own, attributes: ['id'] })
  const forgottenOn = app.today()
  const left = {
    id: visit.id,
    events: visit.eventCount,
    headHash: visit.headHash,
    lastAt: last.serverTime,
    forgottenOn,
  }
  await db.forgottenVisits.create(left, { transaction })
  await db.forgottenCertificates.bulkCreate(
    certificates.map(({ code, number }) => ({ code, number, visitId: visit.id, forgottenOn })),
    { transaction },
  )
  await sealNew(app, 'forgotten', id, forgottenWords(left, certificates), transaction)
  const issued = { where: { certificateId: certificates.map((c) => c.id) }, transaction }
  await db.certificatePdfs.destroy(issued)
  await db.certificateStatus.destroy(issued)
  await db.certificates.destroy(own)
  await db.photos.destroy(own)
  await db.visitEvents.destroy(own)
  await visit.destroy({ transaction })
  await unseal(app, 'visit', [id], transaction)
  await unseal(
    app,
    'photo',
    photos.map((p) => p.id),
    transaction,
  )
}

async function forgetAudit(app: App, until: Date): Promise<number> {
  let lines = 0
  for (;;) {
    const gone = await app.db.sequelize.transaction(async (transaction) => {
      const rows = await app.db.sequelize.query<{ id: number }>(
        `SELECT id FROM audit WHERE at < :until ORDER BY id LIMIT ${LINES}`,
        { replacements: { until }, type: QueryTypes.SELECT, transaction },
      )
      const ids = rows.map((r) => r.id)
      await app.db.audit.destroy({ where: { id: ids }, transaction })
      await unseal(app, 'audit', ids.map(String), transaction)
      return ids.length
    })
    lines += gone
    if (gone < LINES) return lines
  }
}

/** Makes whoever was let go nameless, once no visit, photograph or line of the audit is theirs. */
async function forgetPeople(app: App): Promise<number> {
  const { db } = app
  const rows = await db.sequelize.query<{ id: string }>(
    `SELECT p.id FROM person p
     WHERE NOT p.active AND p.name <> :name
       AND NOT EXISTS (SELECT 1 FROM audit a WHERE a.person_id = p.id)
       AND p.id NOT IN (SELECT technician_id FROM visit)
       AND p.id NOT IN (SELECT person_id FROM photo)
       AND p.id NOT IN (SELECT person_id FROM visit_event)`,
    { replacements: { name: SOMEBODY }, type: QueryTypes.SELECT },
  )
  for (const { id } of rows) {
    const passwordHash = await hashPassword(randomBytes(32).toString('hex'))
    await db.sequelize.transaction(async (transaction) => {
      const own = { where: { personId: id }, transaction }
      for (const table of [db.licences, db.passkeys, db.secondFactors, db.deviceKeys])
        await (table as typeof db.licences).destroy(own)
      await db.people.update(
        { name: SOMEBODY, username: `left-${id.slice(-12)}`, roles: [], passwordHash },
        { where: { id }, transaction },
      )
    })
  }
  return rows.length
}

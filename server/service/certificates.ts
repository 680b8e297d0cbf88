import type { CertificateDetail, CertificateRow as CertificateView, Person } from '@uvanta/contract'
import {
  certificateCode,
  certificateNumber,
  certificatePayload,
  correctionsMade,
  type CertificatePayload,
} from '@uvanta/core/certificate'
import {
  canonicalJson,
  foldVisit,
  type EventDraft,
  type VisitEvent,
  standingAfter,
} from '@uvanta/core/visit'
import { Op, type Transaction } from 'sequelize'
import type { App } from '../app'
import type { CertificateRow, CertificateStatusRow } from '../store/rows'
import { inLog, type OpenLog, updateReadTables } from './append'
import { recordAudit } from './audit'
import { appendRows } from './chain'
import { certificatePdf } from './certificatePdf'
import { notFound, ServiceError } from './errors'
import { keptCursor, makeCursor, pageSize } from './paging'

/** The utility in whose name certificates are issued. */
export const UTILITY = 'Larkhaven Gas & Water'

/** Issues the certificate of a signed log, inside the transaction that signed it. */
export async function issueCertificate(
  app: App,
  actor: Pick<Person, 'id' | 'name'>,
  log: OpenLog,
  replacing?: { row: CertificateRow; reason: string },
): Promise<VisitEvent> {
  const { transaction, visit, events } = log
  const state = foldVisit(events)
  const issuedAt = app.now()
  const equipment = await app.db.equipment.findByPk(visit.equipmentId, { transaction })
  const standing = equipment
    ? standingAfter(state, app.library, equipment.programme, equipment.anchorOn)
    : null
  const { number, serial } = await nextNumber(app, issuedAt.year, transaction)
  const code = certificateCode(number, app.newSuffix())
  const head = events.at(-1)
  const payload = certificatePayload(state, app.library, {
    number,
    code,
    issuedAt: issuedAt.toISO(),
    utility: UTILITY,
    visitId: visit.id,
    headHash: head?.hash ?? visit.headHash,
    ...(replacing
      ? { supersedes: { number: replacing.row.number, reason: replacing.reason } }
      : {}),
    corrections: correctionsMade(events),
    ...(standing?.dueOn ? { nextDueOn: standing.dueOn } : {}),
    ...(standing?.lawfulUntil ? { lawfulUntil: standing.lawfulUntil } : {}),
    ...(standing?.repairBy ? { repairBy: standing.repairBy } : {}),
  })
  const id = app.newId()
  const content = canonicalJson(payload)
  await app.db.certificates.create(
    {
      id,
      number,
      code,
      serial,
      year: issuedAt.year,
      visitId: visit.id,
      equipmentId: visit.equipmentId,
      issuedAt: issuedAt.toJSDate(),
      outcome: payload.outcome,
      tag: payload.equipment.tag,
      site: payload.equipment.site,
      technician: payload.tester.name,
      supersedes: replacing?.row.id ?? null,
      payload: content,
      jws: await app.keys.sign(new TextEncoder().encode(content)),
    },
    { transaction },
  )
  await app.db.certificateStatus.create(
    {
      certificateId: id,
      state: 'current',
      reason: null,
      supersededBy: null,
      changedAt: issuedAt.toJSDate(),
      changedBy: null,
    },
    { transaction },
  )
  const draft: EventDraft<'certificate-issued'> = {
    id: app.newId(),
    kind: 'certificate-issued',
    payload: {
      certificateId: id,
      number,
      ...(replacing ? { supersedes: replacing.row.number } : {}),
    },
    deviceTime: issuedAt.toISO(),
    deviceOffset: 0,
  }
  const place = { count: events.length, headHash: head?.hash ?? visit.headHash }
  const [event] = await appendRows(app, actor, visit.id, place, [draft], transaction)
  await updateReadTables(app, log, [...events, event as VisitEvent])
  return event as VisitEvent
}

/** Gapless: the counter's row is locked until the certificate is written, and rolls back with it. */
async function nextNumber(app: App, year: number, transaction: Transaction) {
  // Counted up before it is read: reading first and locking then lets two who sign at once wait for each other.
  await app.db.sequelize.query(
    'INSERT INTO certificate_counter (year, last) VALUES (?, 1) ON DUPLICATE KEY UPDATE last = last + 1',
    { replacements: [year], transaction },
  )
  const counter = await app.db.certificateCounters.findByPk(year, { transaction })
  const serial = counter?.last ?? 1
  return { serial, number: certificateNumber(year, serial) }
}

export interface CertificateQuery {
  readonly q?: string | undefined
  readonly state?: string | undefined
  readonly equipment?: string | undefined
  readonly cursor?: string | undefined
  readonly limit?: string | undefined
}

export async function listCertificates(app: App, query: CertificateQuery) {
  const limit = pageSize(query.limit)
  const [at, id] = keptCursor(query.cursor, 2, /^\d{1,15}$/)
  const like = query.q?.trim() ? `%${query.q.trim().replace(/[\\%_]/g, (c) => `\\${c}`)}%` : null
  const inState = query.state
    ? {
        id: {
          [Op.in]: (await app.db.certificateStatus.findAll({ where: { state: query.state } })).map(
            (s) => s.certificateId,
          ),
        },
      }
    : {}
  const rows = await app.db.certificates.findAll({
    attributes: { exclude: ['payload', 'jws'] },
    where: {
      [Op.and]: [
        inState,
        query.equipment ? { equipmentId: query.equipment } : {},
        like
          ? {
              [Op.or]: ['number', 'tag', 'site', 'technician'].map((field) => ({
                [field]: { [Op.like]: like },
              })),
            }
          : {},
        at && id
          ? {
              [Op.or]: [
                { issuedAt: { [Op.lt]: new Date(Number(at)) } },
                { issuedAt: new Date(Number(at)), id: { [Op.lt]: id } },
              ],
            }
          : {},
      ],
    },
    order: [
      ['issuedAt', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: limit + 1,
  })
  const shown = rows.slice(0, limit)
  const statuses = await app.db.certificateStatus.findAll({
    where: { certificateId: shown.map((r) => r.id) },
  })
  const last = shown.at(-1)
  return {
    items: shown.map((row) =>
      toView(
        row,
        statuses.find((s) => s.certificateId === row.id),
      ),
    ),
    next: rows.length > limit && last ? makeCursor([last.issuedAt.getTime(), last.id]) : null,
  }
}

function toView(row: CertificateRow, status: CertificateStatusRow | undefined): CertificateView {
  return {
    id: row.id,
    number: row.number,
    issuedAt: row.issuedAt.toISOString(),
    state: status?.state ?? 'current',
    stateReason: status?.reason ?? null,
    supersededBy: status?.supersededBy ?? null,
    supersedes: row.supersedes,
    outcome: row.outcome,
    visitId: row.visitId,
    equipmentId: row.equipmentId,
    tag: row.tag,
    site: row.site,
    technician: row.technician,
    verifyPath: `/verify/${row.code}`,
  }
}

async function find(app: App, id: string) {
  const [row, status] = await Promise.all([
    app.db.certificates.findByPk(id),
    app.db.certificateStatus.findByPk(id),
  ])
  if (!row) throw notFound('certificate')
  return { row, status }
}

export async function readCertificate(app: App, id: string): Promise<CertificateDetail> {
  const { row, status } = await find(app, id)
  return {
    ...toView(row, status ?? undefined),
    payload: JSON.parse(row.payload) as CertificatePayload,
  }
}

export async function readJws(app: App, id: string) {
  const { row } = await find(app, id)
  return { name: row.number, jws: row.jws }
}

/** The PDF is made when it is first asked for and kept; from then on it is the same file. */
export async function readPdf(app: App, id: string): Promise<{ name: string; pdf: Buffer }> {
  const { row } = await find(app, id)
  const kept = await app.db.certificatePdfs.findByPk(id)
  if (kept) return { name: row.number, pdf: kept.pdf }
  const payload = JSON.parse(row.payload) as CertificatePayload
  const pdf = await certificatePdf(payload, `${app.config.publicUrl}/verify/${row.code}`)
  await app.db.certificatePdfs.upsert({ certificateId: id, pdf })
  return { name: row.number, pdf }
}

/** Declares a certificate void: on its status, and in the log of its visit, which is chained. */
export async function voidCertificate(
  app: App,
  actor: Person,
  id: string,
  reason: string,
): Promise<CertificateDetail> {
  const { row } = await find(app, id)
  await inLog(app, row.visitId, async (log) => {
    await changeState(app, actor, id, { state: 'void', reason }, log.transaction)
    const added = await appendVoided(app, actor, log, { id, number: row.number, reason })
    await recordAudit(app, actor, 'declared a certificate void', row.number, log.transaction)
    return added
  })
  return readCertificate(app, id)
}

/** Writes into a visit’s log that its certificate is void. */
export async function appendVoided(
  app: App,
  actor: Pick<Person, 'id' | 'name'>,
  log: OpenLog,
  { id, number, reason }: { id: string; number: string; reason: string },
): Promise<VisitEvent[]> {
  const draft: EventDraft<'certificate-voided'> = {
    id: app.newId(),
    kind: 'certificate-voided',
    payload: { certificateId: id, number, reason },
    deviceTime: app.now().toISO(),
    deviceOffset: 0,
  }
  const place = { count: log.visit.eventCount, headHash: log.visit.headHash }
  const added = await appendRows(app, actor, log.visit.id, place, [draft], log.transaction)
  await updateReadTables(app, log, [...log.events, ...added])
  return added
}

async function changeState(
  app: App,
  actor: Person,
  id: string,
  change: { state: 'void' | 'superseded'; reason: string; supersededBy?: string },
  transaction?: Transaction,
): Promise<void> {
  const [changed] = await app.db.certificateStatus.update(
    { ...change, changedAt: app.now().toJSDate(), changedBy: actor.name },
    { where: { certificateId: id, state: 'current' }, ...(transaction ? { transaction } : {}) },
  )
  if (changed > 0) return
  const { status } = await find(app, id)
  throw new ServiceError(
    'refused',
    `This certificate is ${status?.state ?? 'gone'} already and stays so.`,
  )
}

/** Issues a new certificate from the corrected log, and marks the old one superseded by it. */
export async function supersedeCertificate(
  app: App,
  actor: Person,
  id: string,
  reason: string,
): Promise<CertificateDetail> {
  const { row } = await find(app, id)
  let newId = ''
  await inLog(app, row.visitId, async (log) => {
    if (!actor.roles.includes('reviewer') && log.visit.technicianId !== actor.id) {
      throw new ServiceError(
        'forbidden',
        'Only the reviewer or the technician of the visit replaces its certificate.',
      )
    }
    if (!foldVisit(log.events).correctedSinceCertificate) {
      throw new ServiceError(
        'refused',
        'Nothing was corrected since this certificate. Correct the entry in the visit first.',
      )
    }
    const event = await issueCertificate(app, actor, log, { row, reason })
    newId = (event.payload as { certificateId: string }).certificateId
    await changeState(
      app,
      actor,
      id,
      { state: 'superseded', reason, supersededBy: newId },
      log.transaction,
    )
    await recordAudit(app, actor, 'superseded a certificate', row.number, log.transaction)
    return [event]
  })
  return readCertificate(app, newId)
}

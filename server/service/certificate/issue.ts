import type { Person } from '@uvanta/contract'
import {
  certificateCode,
  certificateNumber,
  certificatePayload,
  correctionsMade,
} from '@uvanta/core/certificate'
import { canonicalJson, type EventDraft, standingAfter } from '@uvanta/core/visit'
import type { Transaction } from 'sequelize'
import type { App } from '../../context'
import type { CertificateRow } from '../../store/tables'
import { ServiceError } from '../errors'
import { sealWritten } from '../integrity/rowSeals'
import type { OpenLog } from '../visit/openLog'
import { writeEvents } from '../visit/write'

/** Issues the certificate of a signed log, inside the transaction that signed it. */
export async function issueCertificate(
  app: App,
  actor: Pick<Person, 'id' | 'name'>,
  log: OpenLog,
  replacing?: { row: CertificateRow; reason: string },
): Promise<OpenLog> {
  const { transaction, visit, events, state } = log
  await app.utility.refresh(transaction)
  refuseUnset(app)
  const issuedAt = app.now()
  const equipment = await app.db.equipment.findByPk(visit.equipmentId, { transaction })
  const standing = equipment
    ? standingAfter(state, app.shelf.library, equipment.programme, equipment.anchorOn)
    : null
  const { number, serial } = await nextNumber(app, issuedAt.year, transaction)
  const code = certificateCode(number, app.newSuffix())
  const head = events.at(-1)
  const payload = certificatePayload(state, app.shelf.library, {
    number,
    code,
    issuedAt: issuedAt.toISO(),
    utility: app.utility.current.name,
    utilityAddress: app.utility.current.address,
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
  return writeEvents(app, actor, log, [draft])
}

/** Gapless: the counter's row is locked until the certificate is written, and rolls back with it. */
async function nextNumber(app: App, year: number, transaction: Transaction) {
  // Counted up before it is read: reading first and locking then lets two who sign at once wait for each other.
  await app.db.sequelize.query(
    'INSERT INTO certificate_counter (year, last) VALUES (?, 1) ON DUPLICATE KEY UPDATE last = last + 1',
    { replacements: [year], transaction },
  )
  await sealWritten(app, 'counter', { year }, transaction)
  const counter = await app.db.certificateCounters.findByPk(year, { transaction })
  const serial = counter?.last ?? 1
  return { serial, number: certificateNumber(app.utility.current.certificatePrefix, year, serial) }
}

/** @throws ServiceError utility-not-set while settings that certificates depend on are missing */
function refuseUnset(app: App): void {
  const { missing } = app.utility.current
  if (missing.length === 0) return
  throw new ServiceError(
    'refused',
    'This installation issues no certificates yet: not all settings of the utility are made.',
    'Ask the administrator to fill in Office, Settings. What was recorded stays.',
    { code: 'utility-not-set', missing },
  )
}

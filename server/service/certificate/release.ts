import type { CertificateDetail, Person } from '@uvanta/contract'
import type { EventDraft } from '@uvanta/core/visit'
import type { Transaction } from 'sequelize'
import type { App } from '../../context'
import { recordAudit } from '../audit'
import { ServiceError } from '../errors'
import { inLog, type OpenLog } from '../visit/openLog'
import { writeEvents } from '../visit/write'
import { findCertificate, readCertificate } from './certificates'
import { issueCertificate } from './issue'

/** Declares a certificate void: on its status, and in the log of its visit, which is chained. */
export async function voidCertificate(
  app: App,
  actor: Person,
  id: string,
  reason: string,
): Promise<CertificateDetail> {
  const { row } = await findCertificate(app, id)
  await inLog(app, row.visitId, async (log) => {
    await changeState(app, actor, id, { state: 'void', reason }, log.transaction)
    await recordAudit(app, actor, 'declared a certificate void', row.number, log.transaction)
    return appendVoided(app, actor, log, { id, number: row.number, reason })
  })
  return readCertificate(app, actor, id)
}

/** Writes into a visit’s log that its certificate is void. */
export async function appendVoided(
  app: App,
  actor: Pick<Person, 'id' | 'name'>,
  log: OpenLog,
  { id, number, reason }: { id: string; number: string; reason: string },
): Promise<OpenLog> {
  const draft: EventDraft<'certificate-voided'> = {
    id: app.newId(),
    kind: 'certificate-voided',
    payload: { certificateId: id, number, reason },
    deviceTime: app.now().toISO(),
    deviceOffset: 0,
  }
  return writeEvents(app, actor, log, [draft])
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
  const { status } = await findCertificate(app, id)
  throw new ServiceError(
    'refused',
    `This certificate is ${status?.state ?? 'gone'} already and stays so.`,
    'Open the newest certificate of the visit.',
    { code: 'certificate-final' },
  )
}

/** Issues a new certificate from the corrected log, and marks the old one superseded by it. */
export async function supersedeCertificate(
  app: App,
  actor: Person,
  id: string,
  reason: string,
): Promise<CertificateDetail> {
  const { row } = await findCertificate(app, id)
  let newId = ''
  await inLog(app, row.visitId, async (log) => {
    if (!actor.roles.includes('reviewer') && log.visit.technicianId !== actor.id) {
      throw new ServiceError(
        'forbidden',
        'Only the reviewer or the technician of the visit replaces its certificate.',
        'Ask one of them.',
        { code: 'replaces-not' },
      )
    }
    if (!log.state.correctedSinceCertificate) {
      throw new ServiceError(
        'refused',
        'Nothing was corrected since this certificate.',
        'Correct the entry in the visit first.',
        { code: 'nothing-corrected' },
      )
    }
    const issued = await issueCertificate(app, actor, log, { row, reason })
    newId = issued.state.certificate?.certificateId ?? ''
    await changeState(
      app,
      actor,
      id,
      { state: 'superseded', reason, supersededBy: newId },
      log.transaction,
    )
    await recordAudit(app, actor, 'superseded a certificate', row.number, log.transaction)
    return issued
  })
  return readCertificate(app, actor, newId)
}

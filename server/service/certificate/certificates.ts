import type { CertificateDetail, CertificateRow as CertificateView, Person } from '@uvanta/contract'
import type { CertificatePayload } from '@uvanta/core/certificate'
import { QueryTypes } from 'sequelize'
import type { App } from '../../context'
import type { CertificateRow, CertificateStatusRow } from '../../store/tables'
import { notFound, ServiceError } from '../errors'
import { isAsSealed } from '../integrity/rowSeals'
import { makeCursor, pageSize } from '../paging'
import { seesProofs } from '../people/proofs'
import { certificateSql, type CertificateQuery, type ListedCertificate } from './search'

export async function listCertificates(app: App, actor: Person, query: CertificateQuery) {
  const limit = pageSize(query.limit)
  const { sql, replacements } = certificateSql(query, limit + 1)
  const rows = await app.db.sequelize.query<ListedCertificate>(sql, {
    replacements,
    type: QueryTypes.SELECT,
  })
  const shown = rows.slice(0, limit)
  const last = shown.at(-1)
  return {
    items: shown.map((row) => toView(actor, row, row)),
    next: rows.length > limit && last ? makeCursor([last.issuedAt.getTime(), last.id]) : null,
  }
}

function toView(
  actor: Person,
  row: Omit<CertificateRow, 'payload' | 'jws' | 'year' | 'serial'>,
  status: Pick<CertificateStatusRow, 'state' | 'reason' | 'supersededBy'> | undefined,
): CertificateView {
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
    // Anyone with the code can download the signed file.
    ...(seesProofs(actor) ? { verifyPath: `/verify/${row.code}` } : {}),
  }
}

export async function findCertificate(app: App, id: string) {
  const [row, status] = await Promise.all([
    app.db.certificates.findByPk(id),
    app.db.certificateStatus.findByPk(id),
  ])
  if (!row) throw notFound('certificate')
  return { row, status }
}

export async function readCertificate(
  app: App,
  actor: Person,
  id: string,
): Promise<CertificateDetail> {
  const { row, status } = await findCertificate(app, id)
  const payload = JSON.parse(row.payload) as CertificatePayload
  return {
    ...toView(actor, row, status ?? undefined),
    payload: seesProofs(actor) ? payload : withoutProofs(payload),
  }
}

/** Removes the drawn signature, the license number and the code from a certificate. */
function withoutProofs({ signature: _, ...payload }: CertificatePayload): CertificatePayload {
  const { licence: __, ...tester } = payload.tester
  return { ...payload, tester, code: '' }
}

/** @throws ServiceError not-for-trainees, since PDF and signed file contain signature and license number */
function refuseWithoutProofs(actor: Person): void {
  if (seesProofs(actor)) return
  throw new ServiceError(
    'forbidden',
    'Trainees cannot download certificates: they contain a signature and a license number.',
    'Read the certificate on its page, or ask a technician for the file.',
    { code: 'not-for-trainees' },
  )
}

export async function readJws(app: App, actor: Person, id: string) {
  refuseWithoutProofs(actor)
  const { row } = await findCertificate(app, id)
  return { name: row.number, jws: row.jws }
}

/**
 * The PDF is made when it is first asked for and kept; from then on it is the same file. Once the
 * certificate is void or replaced, every copy says so across its sheets.
 */
export async function readPdf(
  app: App,
  actor: Person,
  id: string,
): Promise<{ name: string; pdf: Buffer }> {
  refuseWithoutProofs(actor)
  return paperOf(app, id)
}

/**
 * The paper of a certificate: the one that was handed out first, or one that is marked across every page where it
 * holds no more.
 * @throws ServiceError paper-altered, not-found
 */
export async function paperOf(app: App, id: string): Promise<{ name: string; pdf: Buffer }> {
  const { row, status } = await findCertificate(app, id)
  const make = (mark?: string) =>
    app.heavy.pdf(JSON.parse(row.payload) as CertificatePayload, {
      verifyUrl: `${app.config.publicUrl}/verify/${row.code}`,
      jws: row.jws,
      timeZone: app.utility.current.timeZone,
      ...(mark ? { mark } : {}),
    })
  if (status && status.state !== 'current')
    return { name: `${row.number}-${status.state}`, pdf: await make(status.state.toUpperCase()) }
  const kept = await app.db.certificatePdfs.findByPk(id)
  if (kept && !(await isAsSealed(app, 'pdf', { certificateId: id })))
    throw new ServiceError(
      'refused',
      'The paper of this certificate was altered where it is kept, and is not handed out.',
      'Ask the administrator to run ./uvanta verify-chain.',
      { code: 'paper-altered' },
    )
  if (kept) return { name: row.number, pdf: kept.pdf }
  const pdf = await make()
  // Whoever was first keeps it: another process may have made one at the same moment.
  await app.db.sequelize.transaction((transaction) =>
    app.db.certificatePdfs.bulkCreate([{ certificateId: id, pdf }], {
      ignoreDuplicates: true,
      transaction,
    }),
  )
  return { name: row.number, pdf: (await app.db.certificatePdfs.findByPk(id))?.pdf ?? pdf }
}

import type { CertificateDetail, CertificateRow as CertificateView } from '@uvanta/contract'
import type { CertificatePayload } from '@uvanta/core/certificate'
import { Op } from 'sequelize'
import type { App } from '../../context'
import type { CertificateRow, CertificateStatusRow } from '../../store/tables'
import { certificatePdf } from './pdf'
import { notFound } from '../errors'
import { keptCursor, makeCursor, pageSize } from '../paging'

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

export async function findCertificate(app: App, id: string) {
  const [row, status] = await Promise.all([
    app.db.certificates.findByPk(id),
    app.db.certificateStatus.findByPk(id),
  ])
  if (!row) throw notFound('certificate')
  return { row, status }
}

export async function readCertificate(app: App, id: string): Promise<CertificateDetail> {
  const { row, status } = await findCertificate(app, id)
  return {
    ...toView(row, status ?? undefined),
    payload: JSON.parse(row.payload) as CertificatePayload,
  }
}

export async function readJws(app: App, id: string) {
  const { row } = await findCertificate(app, id)
  return { name: row.number, jws: row.jws }
}

/** The PDF is made when it is first asked for and kept; from then on it is the same file. */
export async function readPdf(app: App, id: string): Promise<{ name: string; pdf: Buffer }> {
  const { row } = await findCertificate(app, id)
  const kept = await app.db.certificatePdfs.findByPk(id)
  if (kept) return { name: row.number, pdf: kept.pdf }
  const payload = JSON.parse(row.payload) as CertificatePayload
  const pdf = await certificatePdf(payload, {
    verifyUrl: `${app.config.publicUrl}/verify/${row.code}`,
    jws: row.jws,
    timeZone: app.config.utility.timeZone,
  })
  await app.db.certificatePdfs.upsert({ certificateId: id, pdf })
  return { name: row.number, pdf }
}

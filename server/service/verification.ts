import type { Verification } from '@uvanta/contract'
import type { CertificatePayload } from '@uvanta/core/certificate'
import type { App } from '../app'
import type { CertificateRow } from '../store/rows'
import { notFound } from './errors'

async function findByCode(app: App, code: string): Promise<CertificateRow | null> {
  return app.db.certificates.findOne({ where: { code: code.toUpperCase() } })
}

/** What a stranger learns from a code. */
export async function verifyCode(app: App, code: string): Promise<Verification> {
  const row = await findByCode(app, code)
  if (!row) return { verdict: 'unknown', reason: null, replacedBy: null, payload: null }
  const status = await app.db.certificateStatus.findByPk(row.id)
  const state = status?.state ?? 'current'
  const newer = status?.supersededBy
    ? await app.db.certificates.findByPk(status.supersededBy)
    : null
  return {
    verdict: state === 'current' ? 'genuine' : state,
    reason: status?.reason ?? null,
    replacedBy: newer?.code ?? null,
    payload: JSON.parse(row.payload) as CertificatePayload,
  }
}

export async function jwsByCode(app: App, code: string) {
  const row = await findByCode(app, code)
  if (!row) throw notFound('certificate')
  return { name: row.number, jws: row.jws }
}

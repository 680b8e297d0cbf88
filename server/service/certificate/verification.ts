import type { CertificateState, Verification } from '@uvanta/contract'
import type { CertificatePayload } from '@uvanta/core/certificate'
import type { VisitEvent } from '@uvanta/core/visit'
import type { App } from '../../context'
import type { CertificateRow } from '../../store/tables'
import { notFound } from '../errors'
import { readEvents } from '../visit/log'

async function findByCode(app: App, code: string): Promise<CertificateRow | null> {
  return app.db.certificates.findOne({ where: { code: code.toUpperCase() } })
}

/**
 * Whether a row shows what was signed: its JWS verifies under a key of ours, says the same to the
 * byte as the content shown, and the columns by which it is found agree.
 */
export async function showsWhatWasSigned(app: App, row: CertificateRow): Promise<boolean> {
  const signed = await app.keys.verify(row.jws)
  if (!signed || new TextDecoder().decode(signed) !== row.payload) return false
  const payload = JSON.parse(row.payload) as CertificatePayload
  return (
    payload.number === row.number &&
    payload.code === row.code &&
    payload.outcome === row.outcome &&
    payload.equipment.tag === row.tag &&
    payload.equipment.site === row.site &&
    payload.tester.name === row.technician &&
    payload.log.visitId === row.visitId
  )
}

/** How a certificate stands by the log of its visit; null when the log never issued it. */
export function stateByLog(
  events: readonly VisitEvent[],
  row: Pick<CertificateRow, 'id' | 'number'>,
): CertificateState | null {
  const issued = events.some(
    (e) => e.kind === 'certificate-issued' && e.payload.certificateId === row.id,
  )
  if (!issued) return null
  const voided = events.some(
    (e) => e.kind === 'certificate-voided' && e.payload.certificateId === row.id,
  )
  if (voided) return 'void'
  const replaced = events.some(
    (e) => e.kind === 'certificate-issued' && e.payload.supersedes === row.number,
  )
  return replaced ? 'superseded' : 'current'
}

/** What a stranger learns from a code. */
export async function verifyCode(app: App, code: string): Promise<Verification> {
  const row = await findByCode(app, code)
  if (!row) return { verdict: 'unknown', reason: null, replacedBy: null, payload: null }
  const status = await app.db.certificateStatus.findByPk(row.id)
  const state = status?.state ?? 'current'
  const sound =
    (await showsWhatWasSigned(app, row)) &&
    stateByLog(await readEvents(app, row.visitId), row) === state
  // What was altered is not shown: somebody would believe it.
  if (!sound) return { verdict: 'altered', reason: null, replacedBy: null, payload: null }
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

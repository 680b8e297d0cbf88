import type { CertificateState, Verification } from '@uvanta/contract'
import { type CertificatePayload, lastTest, meaningOf, typedCode } from '@uvanta/core/certificate'
import { Op } from 'sequelize'
import { CHAIN_START, type VisitEvent } from '@uvanta/core/visit'
import type { App } from '../../context'
import type { CertificateRow } from '../../store/tables'
import { notFound } from '../errors'
import { sealFaults, visitWords } from '../integrity/seals'
import { chainFault } from '../visit/chain'
import { readEvents } from '../visit/log'

/** A code as it is kept, however it was typed. */
function keptCode(code: string): string {
  const typed = typedCode(code)
  return typed && 'code' in typed ? typed.code : code.toUpperCase()
}
const findByCode = (app: App, code: string): Promise<CertificateRow | null> =>
  app.db.certificates.findOne({ where: { code: keptCode(code) } })

const wasForgotten = async (app: App, code: string): Promise<boolean> =>
  (await app.db.forgottenCertificates.findByPk(keptCode(code))) !== null

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

/** Whether the log that a certificate rests on is the one that stands, to the last hash. */
export function restsOnLog(row: Pick<CertificateRow, 'payload'>, events: readonly VisitEvent[]) {
  const { log } = JSON.parse(row.payload) as CertificatePayload
  return events[log.events - 1]?.hash === log.headHash
}

/** Whether the chain of a visit holds, and ends with what was sealed. */
async function isLogAsSealed(
  app: App,
  visitId: CertificateRow['visitId'],
  events: readonly VisitEvent[],
): Promise<boolean> {
  if (chainFault(visitId, events)) return false
  const head = { eventCount: events.length, headHash: events.at(-1)?.hash ?? CHAIN_START }
  const words = visitWords({ id: visitId, ...head })
  return (await sealFaults(app, 'visit', [{ id: visitId, words }])).length === 0
}

/** What a stranger learns from a code. */
export async function verifyCode(app: App, code: string): Promise<Verification> {
  const row = await findByCode(app, code)
  const { name, phone } = app.utility.current
  const utility = { name, phone }
  if (!row)
    return {
      verdict: (await wasForgotten(app, code)) ? 'forgotten' : 'unknown',
      ...NOTHING,
      utility,
    }
  const status = await app.db.certificateStatus.findByPk(row.id)
  const state = status?.state ?? 'current'
  const events = await readEvents(app, row.visitId)
  const sound =
    (await showsWhatWasSigned(app, row)) &&
    stateByLog(events, row) === state &&
    (await isLogAsSealed(app, row.visitId, events)) &&
    restsOnLog(row, events)
  // What was altered is not shown: somebody would believe it.
  if (!sound) return { verdict: 'altered', ...NOTHING, utility }
  const newer = status?.supersededBy
    ? await app.db.certificates.findByPk(status.supersededBy)
    : null
  const payload = JSON.parse(row.payload) as CertificatePayload
  const later = await laterOf(app, row, payload)
  return {
    verdict: state === 'current' ? 'genuine' : state,
    reason: status?.reason ?? null,
    replacedBy: newer?.code ?? null,
    payload,
    means: state === 'current' ? meaningOf(payload, app.today(), later) : null,
    later: state === 'current' ? (later?.code ?? null) : null,
    utility,
  }
}

const NOTHING = { reason: null, replacedBy: null, payload: null, means: null, later: null }

/**
 * The certificate of the newest test of the same equipment that stands, where that was made after this
 * one: a correction of an old record is issued late, and overtakes nothing.
 */
async function laterOf(
  app: App,
  row: CertificateRow,
  payload: CertificatePayload,
): Promise<{ readonly code: string; readonly on: string } | null> {
  const all = await app.db.certificates.findAll({
    where: { equipmentId: row.equipmentId, visitId: { [Op.ne]: row.visitId } },
  })
  const standing = await app.db.certificateStatus.findAll({
    where: { certificateId: all.map((c) => c.id), state: 'current' },
  })
  const stands = new Set(standing.map((s) => s.certificateId))
  const own = lastTest(payload).at
  const [newest] = all
    .filter((c) => stands.has(c.id))
    .map((c) => ({ code: c.code, ...lastTest(JSON.parse(c.payload) as CertificatePayload) }))
    .filter((c) => c.at > own)
    .sort((x, y) => y.at.localeCompare(x.at))
  return newest ?? null
}

export async function jwsByCode(app: App, code: string) {
  const row = await findByCode(app, code)
  if (!row) throw notFound('certificate')
  return { name: row.number, jws: row.jws }
}

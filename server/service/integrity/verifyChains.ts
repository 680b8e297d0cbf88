import type { CertificatePayload } from '@uvanta/core/certificate'
import { CHAIN_START, type VisitEvent } from '@uvanta/core/visit'
import type { App } from '../../context'
import type { CertificateRow, VisitTableRow } from '../../store/tables'
import { hashOf } from '../visit/chain'
import { readEvents } from '../visit/log'
import { auditWords, photoWords, sealFaults, visitWords } from './seals'
import { showsWhatWasSigned, stateByLog } from '../certificate/verification'

/** Something in the database that is not as it was written. */
export interface RecordFault {
  /** What it is of: a visit, a certificate, a photograph, the audit, the keys. */
  readonly of: string
  readonly id: string
  readonly what: string
}

export interface Verified {
  readonly visits: number
  readonly events: number
  readonly certificates: number
  readonly faults: RecordFault[]
}

/**
 * Recomputes every chain and holds it against the heads, the certificates with their signatures and
 * states, and the seals: what was changed, added or taken away behind the application’s back.
 */
export async function verifyChains(app: App): Promise<Verified> {
  const visits = await app.db.visits.findAll({ order: [['id', 'ASC']] })
  const faults: RecordFault[] = []
  let [events, certificates] = [0, 0]
  for (const visit of visits) {
    const log = await readEvents(app, visit.id)
    const rows = await app.db.certificates.findAll({ where: { visitId: visit.id } })
    events += log.length
    certificates += rows.length
    faults.push(...chainFaults(visit, log))
    for (const row of rows) faults.push(...(await certificateFaults(app, row, log)))
    for (const event of log) {
      if (event.kind !== 'certificate-issued') continue
      const { certificateId, number } = event.payload
      if (!rows.some((r) => r.id === certificateId))
        faults.push({ of: 'certificate', id: number, what: 'was issued and is gone' })
    }
  }
  faults.push(...(await sealedFaults(app, visits)), ...(await keyFaults(app)))
  return { visits: visits.length, events, certificates, faults }
}

function chainFaults(visit: VisitTableRow, events: readonly VisitEvent[]): RecordFault[] {
  const fault = (what: string) => [{ of: 'visit', id: visit.id, what }]
  let previous = CHAIN_START
  for (const [index, event] of events.entries()) {
    if (event.seq !== index + 1) return fault(`event ${index + 1} is missing`)
    if (hashOf(previous, visit.id, event) !== event.hash)
      return fault(`event ${index + 1} was altered`)
    previous = event.hash ?? ''
  }
  const agrees = events.length === visit.eventCount && previous === visit.headHash
  return agrees ? [] : fault('the visit list and the log disagree')
}

async function certificateFaults(
  app: App,
  row: CertificateRow,
  events: readonly VisitEvent[],
): Promise<RecordFault[]> {
  const fault = (what: string) => ({ of: 'certificate', id: row.number, what })
  if (!(await showsWhatWasSigned(app, row))) return [fault('does not show what was signed')]
  const { log } = JSON.parse(row.payload) as CertificatePayload
  const rests = events[log.events - 1]?.hash === log.headHash
  const status = await app.db.certificateStatus.findByPk(row.id)
  const stands = stateByLog(events, row)
  return [
    ...(rests ? [] : [fault('rests on another log than the one that stands')]),
    ...(stands ? [] : [fault('was never issued by its visit')]),
    ...(stands && stands !== status?.state
      ? [fault(`is ${stands} by the log, and ${status?.state ?? 'nothing'} by its status`)]
      : []),
  ]
}

async function sealedFaults(app: App, visits: readonly VisitTableRow[]): Promise<RecordFault[]> {
  const photos = await app.db.photos.findAll()
  const audit = await app.db.audit.findAll()
  const kinds = {
    visit: visits.map((v) => ({ id: v.id, words: visitWords(v) })),
    photo: photos.map((p) => ({ id: p.id, words: photoWords(p) })),
    audit: audit.map((a) => ({ id: String(a.id), words: auditWords(a) })),
  }
  const found = await Promise.all(
    (['visit', 'photo', 'audit'] as const).map(async (kind) =>
      (await sealFaults(app, kind, kinds[kind])).map((f) => ({ of: kind, ...f })),
    ),
  )
  return found.flat()
}

/** Keys that stand in the database and are none of ours. */
async function keyFaults(app: App): Promise<RecordFault[]> {
  const own = new Map(app.keys.published().map((k) => [k.kid, k.x]))
  const rows = await app.db.signingKeys.findAll()
  return rows.flatMap((r) =>
    own.has(r.kid) && own.get(r.kid) === (r.publicJwk as { x?: string }).x
      ? []
      : [{ of: 'key', id: r.kid, what: 'is none of this installation' }],
  )
}

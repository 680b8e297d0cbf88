import { canonicalJson, CHAIN_START, foldVisit, type VisitEvent } from '@uvanta/core/visit'
import { Op, type Transaction } from 'sequelize'
import type { App } from '../../context'
import type { CertificateRow, VisitTableRow } from '../../store/tables'
import { chainFault } from '../visit/chain'
import { readEvents } from '../visit/log'
import { listedOf } from '../visit/write'
import { headFaults } from './dailyHead'
import type { RecordFault } from './recordFault'
import { rowFaults } from './rowSeals'
import {
  auditWords,
  forgottenWords,
  goneOrUncounted,
  photoWords,
  type Sealed,
  sealFaults,
  visitWords,
} from './seals'
import { pageByPage } from './snapshot'
import { restsOnLog, showsWhatWasSigned, stateByLog } from '../certificate/verification'

export interface Verified {
  readonly visits: number
  readonly events: number
  readonly certificates: number
  readonly faults: RecordFault[]
}

/** Logs that are looked through in one go; photographs weigh more. */
const VISITS = 200
const PHOTOS = 10
const LINES = 5_000
/** Before the first id, of uuids and of numbers. */
const NIL = '00000000-0000-0000-0000-000000000000'

/**
 * Recomputes every chain and holds it against the heads, the certificates with their signatures and
 * states, the seals, and the last published head of all: what was changed, added or taken away behind the
 * application’s back. It reads page by page while others write, and finds no fault in what they do.
 */
export async function verifyChains(app: App): Promise<Verified> {
  const faults: RecordFault[] = []
  const count = { visits: 0, events: 0, certificates: 0 }
  await pageByPage(app, async (after, transaction) => {
    const visits = await app.db.visits.findAll({
      where: { id: { [Op.gt]: after || NIL } },
      order: [['id', 'ASC']],
      limit: VISITS,
      transaction,
    })
    for (const visit of visits) {
      const log = await readEvents(app, visit.id, transaction)
      const rows = await app.db.certificates.findAll({ where: { visitId: visit.id }, transaction })
      count.visits++
      count.events += log.length
      count.certificates += rows.length
      faults.push(...chainFaults(visit, log))
      for (const row of rows) faults.push(...(await certificateFaults(app, row, log, transaction)))
      faults.push(...goneFaults(log, rows))
    }
    const records = visits.map((v) => ({ id: v.id as string, words: visitWords(v) }))
    faults.push(...(await sealedFaults(app, 'visit', records, transaction)))
    return visits.at(-1)?.id ?? null
  })
  await pageByPage(app, async (after, transaction) => {
    const photos = await app.db.photos.findAll({
      where: { id: { [Op.gt]: after || NIL } },
      order: [['id', 'ASC']],
      limit: PHOTOS,
      transaction,
    })
    const records = photos.map((p) => ({ id: p.id as string, words: photoWords(p) }))
    faults.push(...(await sealedFaults(app, 'photo', records, transaction)))
    return photos.at(-1)?.id ?? null
  })
  await pageByPage(app, async (after, transaction) => {
    const lines = await app.db.audit.findAll({
      where: { id: { [Op.gt]: Number(after) } },
      order: [['id', 'ASC']],
      limit: LINES,
      transaction,
    })
    const records = lines.map((a) => ({ id: String(a.id), words: auditWords(a) }))
    faults.push(...(await sealedFaults(app, 'audit', records, transaction)))
    return lines.length > 0 ? String(lines.at(-1)?.id) : null
  })
  await pageByPage(app, async (after, transaction) => {
    const visits = await app.db.forgottenVisits.findAll({
      where: { id: { [Op.gt]: after || NIL } },
      order: [['id', 'ASC']],
      limit: VISITS,
      transaction,
    })
    const certificates = await app.db.forgottenCertificates.findAll({
      where: { visitId: visits.map((v) => v.id) },
      transaction,
    })
    const records = visits.map((v) => ({
      id: v.id as string,
      words: forgottenWords(
        v,
        certificates.filter((c) => c.visitId === v.id),
      ),
    }))
    faults.push(...(await sealedFaults(app, 'forgotten', records, transaction)))
    return visits.at(-1)?.id ?? null
  })
  for (const kind of ['visit', 'photo', 'audit', 'forgotten'] as const)
    faults.push(...(await goneOrUncounted(app, kind)).map((f) => ({ of: kind, ...f })))
  faults.push(...(await rowFaults(app)), ...(await headFaults(app)), ...(await keyFaults(app)))
  return { ...count, faults }
}

const sealedFaults = async (
  app: App,
  kind: Sealed,
  records: readonly { readonly id: string; readonly words: string }[],
  transaction: Transaction,
): Promise<RecordFault[]> =>
  (await sealFaults(app, kind, records, transaction)).map((f) => ({ of: kind, ...f }))

/** Certificates that a log issued, and that are no longer there. */
const goneFaults = (log: readonly VisitEvent[], rows: readonly CertificateRow[]): RecordFault[] =>
  log.flatMap((event) => {
    if (event.kind !== 'certificate-issued') return []
    const { certificateId, number } = event.payload
    return rows.some((r) => r.id === certificateId)
      ? []
      : [{ of: 'certificate', id: number, what: 'was issued and is gone' }]
  })

function chainFaults(visit: VisitTableRow, events: readonly VisitEvent[]): RecordFault[] {
  const fault = (what: string) => [{ of: 'visit', id: visit.id, what }]
  const broken = chainFault(visit.id, events)
  if (broken) return fault(broken)
  const previous = events.at(-1)?.hash ?? CHAIN_START
  const agrees = events.length === visit.eventCount && previous === visit.headHash
  if (!agrees) return fault('the visit list and the log disagree')
  const listed = listedOf(foldVisit(events))
  const { state, done, skipped, replanAsked, outcome, certificateId, certificateNumber } = visit
  const shown = { state, done, skipped, replanAsked, outcome, certificateId, certificateNumber }
  return canonicalJson(shown) === canonicalJson(listed)
    ? []
    : fault('is listed otherwise than its log says')
}

async function certificateFaults(
  app: App,
  row: CertificateRow,
  events: readonly VisitEvent[],
  transaction: Transaction,
): Promise<RecordFault[]> {
  const fault = (what: string) => ({ of: 'certificate', id: row.number, what })
  if (!(await showsWhatWasSigned(app, row))) return [fault('does not show what was signed')]
  const rests = restsOnLog(row, events)
  const status = await app.db.certificateStatus.findByPk(row.id, { transaction })
  const stands = stateByLog(events, row)
  return [
    ...(rests ? [] : [fault('rests on another log than the one that stands')]),
    ...(stands ? [] : [fault('was never issued by its visit')]),
    ...(stands && stands !== status?.state
      ? [fault(`is ${stands} by the log, and ${status?.state ?? 'nothing'} by its status`)]
      : []),
  ]
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

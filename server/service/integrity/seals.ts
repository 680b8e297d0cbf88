import { canonicalJson } from '@uvanta/core/visit'
import { QueryTypes, type Transaction } from 'sequelize'
import type { App } from '../../context'
import type {
  AuditRow,
  ForgottenCertificateRow,
  ForgottenVisitRow,
  PhotoRow,
} from '../../store/tables'
import { inSnapshot } from './snapshot'

/**
 * Seals: whoever can write to the database but has not the key file cannot write a visit’s head, a
 * photograph or a line of the audit so that it passes for ours, nor take one away unnoticed.
 */
export type Sealed = 'visit' | 'photo' | 'audit' | 'forgotten'

export const visitWords = (visit: { id: string; eventCount: number; headHash: string }) =>
  canonicalJson([visit.id, visit.eventCount, visit.headHash])
export const photoWords = (photo: Pick<PhotoRow, 'id' | 'visitId' | 'content'>) =>
  canonicalJson([photo.id, photo.visitId, photo.content.toString('base64')])
export const auditWords = (a: Pick<AuditRow, 'id' | 'at' | 'person' | 'action' | 'subject'>) =>
  canonicalJson([a.id, a.at.toISOString(), a.person, a.action, a.subject])
/** @param certificates those that went with the visit */
export const forgottenWords = (
  { id, events, headHash, lastAt, forgottenOn }: ForgottenVisitRow,
  certificates: readonly Pick<ForgottenCertificateRow, 'code' | 'number'>[],
) =>
  canonicalJson([
    id,
    events,
    headHash,
    lastAt,
    forgottenOn,
    certificates.map((c) => [c.number, c.code]).sort(),
  ])

const totalWords = (kind: Sealed, total: number) => canonicalJson(['total', kind, total])

/** Takes back the seals of records that go, and counts them off. */
export async function unseal(
  app: Pick<App, 'db' | 'keys'>,
  kind: Sealed,
  ids: readonly string[],
  transaction: Transaction,
): Promise<void> {
  if (ids.length === 0) return
  const gone = await app.db.seals.destroy({ where: { kind, id: ids as string[] }, transaction })
  await app.db.sequelize.query('UPDATE seal_total SET total = total - ? WHERE kind = ?', {
    replacements: [gone, kind],
    transaction,
  })
  await sealTotal(app, kind, transaction)
}

/** Waits until everybody who seals records of a kind has done so, and has them wait in turn. */
export async function inSealingOrder(
  app: Pick<App, 'db'>,
  kind: Sealed,
  transaction: Transaction,
): Promise<void> {
  await app.db.sealTotals.findByPk(kind, { transaction, lock: transaction.LOCK.UPDATE })
}

/** Seals a new record, and counts it. */
export async function sealNew(
  app: Pick<App, 'db' | 'keys'>,
  kind: Sealed,
  id: string,
  words: string,
  transaction: Transaction,
): Promise<void> {
  await app.db.seals.create({ kind, id, seal: app.keys.seal(kind, words) }, { transaction })
  // The lock on the row of the total makes sealing one after the other.
  await app.db.sequelize.query(
    'INSERT INTO seal_total (kind, total, seal) VALUES (?, 1, ?) ON DUPLICATE KEY UPDATE total = total + 1',
    { replacements: [kind, ''], transaction },
  )
  await sealTotal(app, kind, transaction)
}

/** Seals how many of a kind there are, under the lock of whoever has just counted. */
async function sealTotal(
  app: Pick<App, 'db' | 'keys'>,
  kind: Sealed,
  transaction: Transaction,
): Promise<void> {
  const row = await app.db.sealTotals.findByPk(kind, { transaction })
  const seal = app.keys.seal(kind, totalWords(kind, row?.total ?? 0))
  await app.db.sealTotals.update({ seal }, { where: { kind }, transaction })
}

/** Seals a visit’s head anew, after something was appended. */
export async function sealHead(
  app: Pick<App, 'db' | 'keys'>,
  visit: { id: string; eventCount: number; headHash: string },
  transaction: Transaction,
): Promise<void> {
  const seal = app.keys.seal('visit', visitWords(visit))
  await app.db.sequelize.query("UPDATE seal SET seal = ? WHERE kind = 'visit' AND id = ?", {
    replacements: [seal, visit.id],
    transaction,
  })
}

/** What of these records does not fit its seal, or has none. */
export async function sealFaults(
  app: Pick<App, 'db' | 'keys'>,
  kind: Sealed,
  records: readonly { readonly id: string; readonly words: string }[],
  transaction?: Transaction,
): Promise<{ id: string; what: string }[]> {
  const rows = await app.db.seals.findAll({
    where: { kind, id: records.map((r) => r.id) },
    ...(transaction ? { transaction } : {}),
  })
  const seals = new Map(rows.map((r) => [r.id, r.seal]))
  return records.flatMap(({ id, words }) => {
    const seal = seals.get(id)
    if (seal === app.keys.seal(kind, words)) return []
    return [{ id, what: seal ? 'does not fit its seal: it was altered' : 'was never sealed' }]
  })
}

/** Where a sealed record stands, and its id as it is kept there. */
const HOMES: Readonly<Record<Sealed, { readonly table: string; readonly id: string }>> = {
  visit: { table: 'visit', id: 'CAST(s.id AS UUID)' },
  photo: { table: 'photo', id: 'CAST(s.id AS UUID)' },
  audit: { table: 'audit', id: 'CAST(s.id AS UNSIGNED)' },
  forgotten: { table: 'forgotten_visit', id: 'CAST(s.id AS UUID)' },
}

/** Records of a kind that were sealed and are gone; and whether their number fits what was sealed of it. */
export const goneOrUncounted = (
  app: Pick<App, 'db' | 'keys'>,
  kind: Sealed,
): Promise<{ id: string; what: string }[]> =>
  inSnapshot(app, async (transaction) => {
    const { table, id } = HOMES[kind]
    const gone = await app.db.sequelize.query<{ id: string }>(
      `SELECT s.id FROM seal s LEFT JOIN ${table} r ON r.id = ${id} WHERE s.kind = :kind AND r.id IS NULL`,
      { replacements: { kind }, type: QueryTypes.SELECT, transaction },
    )
    const sealed = await app.db.seals.count({ where: { kind }, transaction })
    const total = await app.db.sealTotals.findByPk(kind, { transaction })
    const counted = total
      ? total.total === sealed && total.seal === app.keys.seal(kind, totalWords(kind, total.total))
      : sealed === 0
    return [
      ...gone.map((g) => ({ id: g.id, what: 'was taken away' })),
      ...(counted ? [] : [{ id: 'all', what: 'the number of records does not fit its seal' }]),
    ]
  })

/** Seals what stood in the database before there were seals. */
export async function sealExisting(app: Pick<App, 'db' | 'keys'>): Promise<void> {
  await app.db.sequelize.transaction(async (transaction) => {
    if ((await app.db.sealTotals.count({ transaction })) > 0) return
    const visits = await app.db.visits.findAll({ transaction })
    const photos = await app.db.photos.findAll({ transaction })
    const audit = await app.db.audit.findAll({ transaction })
    const records = {
      visit: visits.map((v) => ({ id: v.id, words: visitWords(v) })),
      photo: photos.map((p) => ({ id: p.id, words: photoWords(p) })),
      audit: audit.map((a) => ({ id: String(a.id), words: auditWords(a) })),
    }
    for (const kind of ['visit', 'photo', 'audit'] as const) {
      const rows = records[kind].map(({ id, words }) => ({
        kind,
        id,
        seal: app.keys.seal(kind, words),
      }))
      await app.db.seals.bulkCreate(rows, { transaction })
      const seal = app.keys.seal(kind, totalWords(kind, rows.length))
      await app.db.sealTotals.create({ kind, total: rows.length, seal }, { transaction })
    }
  })
}

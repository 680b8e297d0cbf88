import type { VisitEvent } from '@uvanta/core/visit'
import type { Transaction } from 'sequelize'
import type { App } from '../app'
import type { VisitEventRow } from '../store/rows'

/** The log of a visit, in order. */
export async function readEvents(
  app: App,
  visitId: string,
  transaction?: Transaction,
): Promise<VisitEvent[]> {
  const rows = await app.db.visitEvents.findAll({
    where: { visitId },
    order: [['seq', 'ASC']],
    ...(transaction ? { transaction } : {}),
  })
  return rows.map(toEvent)
}

export function toEvent(row: VisitEventRow): VisitEvent {
  return {
    id: row.id,
    kind: row.kind,
    payload: JSON.parse(row.payload) as VisitEvent['payload'],
    deviceTime: row.deviceTime,
    deviceOffset: row.deviceOffset,
    personId: row.personId,
    personName: row.personName,
    seq: row.seq,
    serverTime: row.serverTime,
    hash: row.hash,
  }
}

import type { Id } from '@uvanta/core/schema'
import type { VisitEvent } from '@uvanta/core/visit'
import type { Transaction } from 'sequelize'
import type { App } from '../../context'
import type { VisitEventRow } from '../../store/tables'

/** The log of a visit, in order. */
export async function readEvents(
  app: App,
  visitId: Id<'visit'>,
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
  // The kind says which payload it is, which the compiler cannot see in a row.
  return {
    id: row.id,
    kind: row.kind,
    payload: JSON.parse(row.payload) as object,
    ...(row.version > 1 ? { version: row.version } : {}),
    deviceTime: row.deviceTime,
    deviceOffset: row.deviceOffset,
    personId: row.personId,
    personName: row.personName,
    seq: row.seq,
    serverTime: row.serverTime,
    ...(row.clockAheadS === null ? {} : { clockAheadS: row.clockAheadS }),
    hash: row.hash,
  } as VisitEvent
}

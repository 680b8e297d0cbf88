import type { Id } from '@uvanta/core/schema'
import { appended, emptyLog, type FoldedLog, type VisitEvent } from '@uvanta/core/visit'
import { QueryTypes, type Transaction } from 'sequelize'
import type { App } from '../../context'
import { triedAgain } from '../../store/triedAgain'
import type { VisitTableRow } from '../../store/tables'
import { notFound } from '../errors'
import { readEvents } from './log'
import { LogCache } from './logCache'

/** What of a visit's row its log has to do with. */
export type HeldVisit = Pick<
  VisitTableRow,
  'id' | 'equipmentId' | 'technicianId' | 'eventCount' | 'headHash'
>

/** What a transaction on one visit’s log works with: the log as folded so far, under the lock of its row. */
export interface OpenLog extends FoldedLog {
  readonly visit: HeldVisit
  readonly transaction: Transaction
}

/** Bytes of payload that the logs last written may take; a long visit has about 200 kB. */
const CACHE_BYTES = 64_000_000

const cache = new LogCache(CACHE_BYTES)

/**
 * Locks a visit, works on its log, and keeps log and state for the next time; after a rollback what
 * was kept before stays.
 * @param work answers the log as it then stands
 * @returns the entries that the work added
 */
export const inLog = (
  app: App,
  visitId: Id<'visit'>,
  work: (log: OpenLog) => Promise<FoldedLog>,
): Promise<VisitEvent[]> => triedAgain(() => once(app, visitId, work))

async function once(
  app: App,
  visitId: Id<'visit'>,
  work: (log: OpenLog) => Promise<FoldedLog>,
): Promise<VisitEvent[]> {
  const { before, after } = await app.db.sequelize.transaction(async (transaction) => {
    const [visit] = await app.db.sequelize.query<HeldVisit>(
      `SELECT id, equipment_id AS equipmentId, technician_id AS technicianId, event_count AS eventCount,
         head_hash AS headHash FROM visit WHERE id = ? FOR UPDATE`,
      { replacements: [visitId], type: QueryTypes.SELECT, transaction },
    )
    if (!visit) throw notFound('visit')
    const known =
      cache.get(visitId, visit.eventCount, visit.headHash) ??
      appended(emptyLog, await readEvents(app, visitId, transaction))
    const { events, state } = await work({ ...known, visit, transaction })
    return { before: known.events.length, after: { events, state } }
  })
  cache.put(visitId, after)
  return after.events.slice(before)
}

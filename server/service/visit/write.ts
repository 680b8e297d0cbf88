import type { Person } from '@uvanta/contract'
import {
  appended,
  CHAIN_START,
  decisiveRun,
  type EventDraft,
  standingAfter,
  type VisitState,
} from '@uvanta/core/visit'
import { Op } from 'sequelize'
import type { App } from '../../context'
import type { VisitTableRow } from '../../store/tables'
import { sealHead } from '../integrity/seals'
import { followStock } from '../stock/stock'
import { chainedNow, insertRows } from './chain'
import type { OpenLog } from './openLog'

/**
 * Writes entries behind a log, in the transaction that holds it, with everything that follows from
 * them: stock, visit list, due list, seal.
 * @returns the log as it then stands
 */
export async function writeEvents(
  app: App,
  actor: Pick<Person, 'id' | 'name'>,
  log: OpenLog,
  drafts: readonly EventDraft[],
): Promise<OpenLog> {
  if (drafts.length === 0) return log
  const head = { count: log.events.length, headHash: log.events.at(-1)?.hash ?? CHAIN_START }
  const added = chainedNow(app, actor, log.visit.id, head, drafts)
  const after = { ...log, ...appended(log, added) }
  // Sent one behind the other without waiting: what fails takes the whole transaction with it.
  await Promise.all([
    insertRows(app, log.visit.id, added, log.transaction),
    followStock(app, log, added),
    updateVisit(app, after),
    updateStanding(app, after),
  ])
  return after
}

/** What the visit list shows of a visit, by its log. */
export const listedOf = (state: VisitState) => ({
  state: stateName(state),
  done: state.signed ? [...state.done, 'as-left' as const] : state.done,
  skipped: state.skipped,
  replanAsked: state.replanAsked?.why ?? null,
  outcome: state.signed?.outcome ?? null,
  certificateId: state.certificate?.certificateId ?? null,
  certificateNumber: state.certificate?.number ?? null,
})

/** Keeps the visit list in step with the log, sealed. */
async function updateVisit(
  app: App,
  { events, state, visit, transaction }: OpenLog,
): Promise<void> {
  const listed = listedOf(state)
  const head = {
    eventCount: events.length,
    headHash: events.at(-1)?.hash ?? visit.headHash,
  }
  await Promise.all([
    sealHead(app, { id: visit.id, ...head }, transaction),
    app.db.sequelize.query(
      `UPDATE visit SET state = ?, done = ?, skipped = ?, replan_asked = ?, outcome = ?, certificate_id = ?,
         certificate_number = ?, event_count = ?, head_hash = ? WHERE id = ?`,
      {
        replacements: [
          listed.state,
          JSON.stringify(listed.done),
          JSON.stringify(listed.skipped),
          listed.replanAsked,
          listed.outcome,
          listed.certificateId,
          listed.certificateNumber,
          head.eventCount,
          head.headHash,
          visit.id,
        ],
        transaction,
      },
    ),
  ])
}

/** Keeps the due list in step with what the log says of the equipment, once a test is finished. */
async function updateStanding(app: App, { state, visit, transaction }: OpenLog): Promise<void> {
  if (!decisiveRun(state)) return
  const equipment = await app.db.equipment.findByPk(visit.equipmentId, {
    attributes: ['programme', 'anchorOn'],
    transaction,
  })
  const standing = equipment
    ? standingAfter(state, app.shelf.library, equipment.programme, equipment.anchorOn)
    : null
  if (!standing) return
  await app.db.equipmentStatus.update(
    {
      condition: standing.condition,
      lastTestedOn: standing.testedOn,
      repairBy: standing.repairBy ?? null,
      lastVisitId: visit.id,
      ...(standing.dueOn ? { dueOn: standing.dueOn } : {}),
    },
    {
      // A correction of an older visit says nothing of how the equipment stands since a newer test.
      where: {
        equipmentId: visit.equipmentId,
        // Nor does it put back into service what was taken out meanwhile.
        condition: { [Op.ne]: 'out-of-service' },
        lastTestedOn: { [Op.or]: [{ [Op.is]: null }, { [Op.lte]: standing.testedOn }] },
      },
      transaction,
    },
  )
}

function stateName(state: VisitState): VisitTableRow['state'] {
  if (state.signed) return 'signed'
  if (state.stopped) return 'stopped'
  return state.begun ? 'under-way' : 'planned'
}

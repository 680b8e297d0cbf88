import type { Id } from '@uvanta/core/schema'
import { finalRun, foldVisit, type PayloadOf } from '@uvanta/core/visit'
import { Op } from 'sequelize'
import type { App } from '../../context'
import { toEvent } from './log'

type Previous = NonNullable<PayloadOf<'planned'>['previous']>

/** As many as a plan carries. */
const MOST_READINGS = 100

/** What the last visit that ended in a verdict left this equipment at; null where there is none. */
export async function previousLeft(
  app: App,
  equipmentId: Id<'equipment'>,
  before: string,
): Promise<Previous | null> {
  const visit = await app.db.visits.findOne({
    where: { equipmentId, plannedOn: { [Op.lt]: before }, outcome: { [Op.ne]: null } },
    order: [
      ['plannedOn', 'DESC'],
      ['id', 'DESC'],
    ],
  })
  if (!visit) return null
  const events = await app.db.visitEvents.findAll({
    where: { visitId: visit.id },
    order: [['seq', 'ASC']],
  })
  const state = foldVisit(events.map(toEvent))
  const run = finalRun(state)
  const newest = new Map((run && state.runs[run]?.readings)?.map((r) => [r.item, r]))
  const readings = [...newest.values()].map(({ item, dimension, value, unit }) => ({
    item,
    dimension,
    value,
    unit,
  }))
  if (readings.length === 0) return null
  return { on: visit.plannedOn, readings: readings.slice(0, MOST_READINGS) }
}

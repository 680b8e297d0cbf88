import type { Id } from '@uvanta/core/schema'
import type { VisitSummary } from '@uvanta/contract'
import { foldVisit, runNames, type VisitEvent } from '@uvanta/core/visit'
import type { App } from '../../context'
import { readEquipment } from '../register/equipment'
import { toEvent } from './log'

/** Visits to one piece of equipment with the readings that stood at their end, newest first. */
export async function equipmentHistory(
  app: App,
  equipmentId: Id<'equipment'>,
): Promise<VisitSummary[]> {
  await readEquipment(app, equipmentId)
  const visits = await app.db.visits.findAll({
    where: { equipmentId },
    order: [['plannedOn', 'DESC']],
    limit: 200,
  })
  const [events, people] = await Promise.all([
    app.db.visitEvents.findAll({
      where: { visitId: visits.map((v) => v.id) },
      order: [['seq', 'ASC']],
    }),
    app.db.people.findAll({ where: { id: visits.map((v) => v.technicianId) } }),
  ])
  const logs = new Map(visits.map((v) => [v.id, events.filter((e) => e.visitId === v.id)]))
  const names = new Map(people.map((p) => [p.id, p.name]))
  return visits.map((v) => ({
    visitId: v.id,
    plannedOn: v.plannedOn,
    state: v.state,
    outcome: v.outcome,
    technician: names.get(v.technicianId) ?? '',
    certificateId: v.certificateId,
    certificateNumber: v.certificateNumber,
    readings: lastReadings((logs.get(v.id) ?? []).map(toEvent)),
  }))
}

function lastReadings(events: readonly VisitEvent[]): VisitSummary['readings'] {
  const { runs } = foldVisit(events)
  return runNames.flatMap((run) => {
    const readings = runs[run]?.readings ?? []
    const newest = new Map(readings.map((r) => [r.item, r]))
    return [...newest.values()].map(({ item, value, unit, dimension }) => ({
      run,
      item,
      value,
      unit,
      dimension,
    }))
  })
}

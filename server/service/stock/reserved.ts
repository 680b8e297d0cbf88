import type { Id } from '@uvanta/core/schema'
import type { PayloadOf } from '@uvanta/core/visit'
import type { App } from '../../context'

/** A kit that lies ready for a visit on which the work goes on. */
export interface Reservation {
  readonly visitId: Id<'visit'>
  readonly holderId: Id<'person'>
  readonly tag: string
  readonly on: string
  /** What was ordered, in the words of whoever ordered it. */
  readonly what: string
}

/**
 * What is kept back for visits that wait for a part: it stands on their plan as what to bring, and is free
 * again when the visit begins or falls away.
 */
export async function reservations(app: App): Promise<Reservation[]> {
  const visits = await app.db.visits.findAll({
    where: { purpose: 'part-ordered', state: 'planned' },
    order: [['plannedOn', 'ASC']],
  })
  const plans = await app.db.visitEvents.findAll({
    where: { visitId: visits.map((v) => v.id), kind: 'planned' },
  })
  return visits.flatMap((visit) => {
    const plan = plans.find((p) => p.visitId === visit.id)
    if (!plan) return []
    const { bring = [], equipment } = JSON.parse(plan.payload) as PayloadOf<'planned'>
    return bring.map((what) => ({
      visitId: visit.id,
      holderId: visit.technicianId,
      tag: equipment.tag,
      on: visit.plannedOn,
      what,
    }))
  })
}

/** Whether something ordered in words is this kit: its number stands in them, as a word of its own. */
export const isKit = (what: string, number: string): boolean =>
  what
    .toLowerCase()
    .split(/[^a-z0-9-]+/)
    .includes(number.toLowerCase())

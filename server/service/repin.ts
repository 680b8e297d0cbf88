import { NotInLibrary, pinsInForce } from '@uvanta/core/library'
import { canonicalJson, foldVisit, type VisitEvent } from '@uvanta/core/visit'
import type { App } from '../app'
import { inLog, updateReadTables } from './append'
import { appendRows } from './chain'

/** Whom the log names where the application itself wrote. */
export const UVANTA = { id: '00000000-0000-7000-8000-000000000000', name: 'Uvanta' }

/**
 * Takes the versions now in force up in every visit that nobody has begun. A visit that was begun
 * keeps what it was begun with; a device that had begun without a line may go on by what it had.
 * @returns how many visits were changed
 */
export async function repinUnbegun(app: App): Promise<number> {
  const visits = await app.db.visits.findAll({ where: { state: 'planned' }, attributes: ['id'] })
  let changed = 0
  for (const { id } of visits) {
    const added = await inLog(app, id, async (log) => {
      const pins = await newerPins(app, log.events)
      if (!pins) return []
      const draft = {
        id: app.newId(),
        kind: 'pinned' as const,
        payload: { pins },
        deviceTime: app.now().toISO(),
        deviceOffset: 0,
      }
      const place = { count: log.visit.eventCount, headHash: log.visit.headHash }
      const rows = await appendRows(app, UVANTA, id, place, [draft], log.transaction)
      await updateReadTables(app, log, [...log.events, ...rows])
      return rows
    })
    changed += added.length
  }
  return changed
}

async function newerPins(app: App, events: readonly VisitEvent[]) {
  if (events.some((e) => e.kind !== 'planned' && e.kind !== 'pinned')) return null
  const state = foldVisit(events)
  if (!state.plan) return null
  const { equipment, packId } = state.plan
  const row = await app.db.equipment.findByPk(equipment.id)
  try {
    const pins = pinsInForce(app.library, { ...equipment, programme: row?.programme ?? '', packId })
    return canonicalJson(pins) === canonicalJson(state.pins.at(-1) ?? {}) ? null : pins
  } catch (error) {
    // Its pack is no longer in force: it keeps the versions that it has.
    if (error instanceof NotInLibrary) return null
    throw error
  }
}

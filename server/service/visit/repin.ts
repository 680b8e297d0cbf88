import { NotInLibrary, pinsInForce } from '@uvanta/core/library'
import { canonicalJson, type VisitState } from '@uvanta/core/visit'
import type { App } from '../../context'
import { inLog } from './openLog'
import { writeEvents } from './write'

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
      const pins = await newerPins(app, log.state)
      if (!pins) return log
      const draft = {
        id: app.newId(),
        kind: 'pinned' as const,
        payload: { pins },
        deviceTime: app.now().toISO(),
        deviceOffset: 0,
      }
      return writeEvents(app, UVANTA, log, [draft])
    })
    changed += added.length
  }
  return changed
}

async function newerPins(app: App, state: VisitState) {
  if (state.begun || !state.plan) return null
  const { equipment, packId } = state.plan
  const row = await app.db.equipment.findByPk(equipment.id)
  try {
    const pins = pinsInForce(app.shelf.library, {
      ...equipment,
      programme: row?.programme ?? '',
      packId,
    })
    return canonicalJson(pins) === canonicalJson(state.pins.at(-1) ?? {}) ? null : pins
  } catch (error) {
    // Its pack is no longer in force: it keeps the versions that it has.
    if (error instanceof NotInLibrary) return null
    throw error
  }
}

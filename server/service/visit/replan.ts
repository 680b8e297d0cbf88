import type { Id } from '@uvanta/core/schema'
import type { Person, Visit } from '@uvanta/contract'
import type { EventDraft } from '@uvanta/core/visit'
import type { App } from '../../context'
import { ServiceError } from '../errors'
import { inLog } from './openLog'
import { activeTechnician, readVisit } from './visits'
import { writeEvents } from './write'

/**
 * Plans a visit for another day, time or technician. What was recorded stays under the name of whoever
 * recorded it; from here on the new technician writes.
 * @throws ServiceError refused once it is signed or stopped
 */
export async function replanVisit(
  app: App,
  actor: Person,
  visitId: Id<'visit'>,
  input: {
    plannedOn: string
    time?: string | undefined
    technicianId: Id<'person'>
    why?: string | undefined
  },
): Promise<Visit> {
  const technician = await activeTechnician(app, input.technicianId)
  const { plannedOn, time, why } = input
  await inLog(app, visitId, async (log) => {
    if (log.state.signed || log.state.stopped) {
      throw new ServiceError(
        'refused',
        'This visit is closed.',
        'Plan another visit to this equipment.',
        { code: 'visit-closed' },
      )
    }
    const draft: EventDraft<'replanned'> = {
      id: app.newId(),
      kind: 'replanned',
      payload: {
        plannedOn,
        ...(time ? { time } : {}),
        technicianId: technician.id,
        technician: technician.name,
        ...(why ? { why } : {}),
      },
      deviceTime: app.now().toISO(),
      deviceOffset: 0,
    }
    const after = await writeEvents(app, actor, log, [draft])
    await app.db.visits.update(
      {
        plannedOn,
        time: time ?? null,
        technicianId: technician.id,
        replannedAt: app.now().toJSDate(),
      },
      { where: { id: visitId }, transaction: log.transaction },
    )
    return after
  })
  return readVisit(app, actor, visitId)
}

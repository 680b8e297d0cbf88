import type { Person } from '@uvanta/contract'
import { pinsInForce } from '@uvanta/core/library'
import { foldVisit, temporaryUntil } from '@uvanta/core/visit'
import type { App } from '../app'
import type { OpenLog } from './append'
import { insertPlanned } from './visits'

/** A temporary repair is renewed by its date: the visit for it is planned as soon as it is signed. */
export async function planFollowUp(
  app: App,
  actor: Person,
  { events, visit, transaction }: OpenLog,
): Promise<void> {
  const state = foldVisit(events)
  const until = temporaryUntil(state)
  if (!until || !state.plan) return
  const { equipment } = state.plan
  const programme = (await app.db.equipment.findByPk(equipment.id, { transaction }))?.programme
  // The follow-up is a visit of its own day: what is in force counts, not what this one rests on.
  const packId = app.library.rulePacks.find((p) => p.id === state.plan?.packId)?.id
  const pins = pinsInForce(app.library, { ...equipment, programme: programme ?? '', packId })
  await insertPlanned(
    app,
    actor,
    app.newId(),
    visit.technicianId,
    {
      purpose: 'temporary-repair',
      plannedOn: until,
      ...(packId && pins.pack ? { packId, packVersion: pins.pack.version } : {}),
      pins,
      equipment,
    },
    transaction,
  )
}

import type { Person } from '@uvanta/contract'
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
  const { packId, packVersion, equipment } = state.plan
  await insertPlanned(
    app,
    actor,
    app.newId(),
    visit.technicianId,
    {
      purpose: 'temporary-repair',
      plannedOn: until,
      ...(packId && packVersion ? { packId, packVersion } : {}),
      equipment,
    },
    transaction,
  )
}

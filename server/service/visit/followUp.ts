import type { Person } from '@uvanta/contract'
import { pinsInForce } from '@uvanta/core/library'
import { type PayloadOf, temporaryUntil } from '@uvanta/core/visit'
import type { App } from '../../context'
import type { OpenLog } from './openLog'
import { insertPlanned } from './visits'

/** A temporary repair is renewed by its date: the visit for it is planned as soon as it is signed. */
export async function planFollowUp(app: App, actor: Person, log: OpenLog): Promise<void> {
  const until = temporaryUntil(log.state)
  if (until) await planNext(app, actor, log, { purpose: 'temporary-repair', plannedOn: until })
}

/** Work that waits for a part goes on when it has come: the visit is planned with what to bring. */
export async function planReturn(app: App, actor: Person, log: OpenLog): Promise<void> {
  const order = log.state.stopped?.order
  if (!order) return
  const { what, comeBackOn } = order
  await planNext(app, actor, log, {
    purpose: 'part-ordered',
    plannedOn: comeBackOn,
    bring: [what],
  })
}

async function planNext(
  app: App,
  actor: Person,
  { state, visit, transaction }: OpenLog,
  next: Pick<PayloadOf<'planned'>, 'purpose' | 'plannedOn' | 'bring'>,
): Promise<void> {
  if (!state.plan) return
  const { equipment } = state.plan
  const programme = (await app.db.equipment.findByPk(equipment.id, { transaction }))?.programme
  // The follow-up is a visit of its own day: what is in force counts, not what this one rests on.
  const packId = app.shelf.library.rulePacks.find((p) => p.id === state.plan?.packId)?.id
  const pins = pinsInForce(app.shelf.library, { ...equipment, programme: programme ?? '', packId })
  await insertPlanned(
    app,
    actor,
    app.newId(),
    visit.technicianId,
    {
      ...next,
      ...(packId && pins.pack ? { packId, packVersion: pins.pack.version } : {}),
      pins,
      equipment,
    },
    transaction,
  )
}

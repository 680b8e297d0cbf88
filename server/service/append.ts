import type { Person } from '@uvanta/contract'
import { check, InvalidInput } from '@uvanta/core/schema'
import {
  canonicalJson,
  type EventDraft,
  foldVisit,
  guard,
  payloads,
  standingAfter,
  type VisitEvent,
  type VisitState,
} from '@uvanta/core/visit'
import { DateTime } from 'luxon'
import { Op, Transaction } from 'sequelize'
import type { App } from '../app'
import type { VisitTableRow } from '../store/rows'
import { appendRows } from './chain'
import { claimsChecked } from './claims'
import { forbidden, notFound, ServiceError } from './errors'
import { LogCache } from './logCache'
import { readEvents } from './log'
import { sealHead } from './seals'
import { followStock } from './stock'

/** How far a device's clock may run ahead. */
const CLOCK_AHEAD_HOURS = 26

const cache = new LogCache(500)

/** What a transaction on one visit's log works with. */
export interface OpenLog {
  readonly visit: VisitTableRow
  readonly events: readonly VisitEvent[]
  readonly transaction: Transaction
}

/**
 * Appends a batch to a visit's log: all or nothing, in order, and harmless when sent twice.
 * @throws ServiceError conflict (with the newer events) when someone else wrote meanwhile,
 *   refused when a guard says so, InvalidInput when an event is malformed
 */
export async function appendEvents(
  app: App,
  actor: Person,
  visitId: string,
  expected: number,
  drafts: readonly EventDraft[],
): Promise<VisitEvent[]> {
  if (drafts.some((d) => d.kind === 'signed')) {
    throw new ServiceError(
      'refused',
      'A visit is signed with the password. Sign it on its last station.',
    )
  }
  const checked = checkDrafts(app, drafts)
  return inLog(app, visitId, async (log) => {
    mayWrite(actor, log.visit, checked)
    return appendGuarded(app, actor, log, expected, checked)
  })
}

/** How often a transaction that met another one is tried. */
const TRIES = 4
/** A deadlock, and a lock that was waited for too long: whoever is told so tries again. */
const MET_ANOTHER = [1213, 1205]

const metAnother = (error: unknown): boolean =>
  MET_ANOTHER.includes((error as { original?: { errno?: number } }).original?.errno ?? 0)

/** Locks a visit, reads its log, and keeps what was appended for the next time. */
export async function inLog(
  app: App,
  visitId: string,
  work: (log: OpenLog) => Promise<VisitEvent[]>,
): Promise<VisitEvent[]> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await once(app, visitId, work)
    } catch (error) {
      if (attempt >= TRIES || !metAnother(error)) throw error
    }
  }
}

async function once(
  app: App,
  visitId: string,
  work: (log: OpenLog) => Promise<VisitEvent[]>,
): Promise<VisitEvent[]> {
  const outcome = await app.db.sequelize.transaction(
    { isolationLevel: Transaction.ISOLATION_LEVELS.READ_COMMITTED },
    async (transaction) => {
      const visit = await app.db.visits.findByPk(visitId, {
        transaction,
        lock: transaction.LOCK.UPDATE,
      })
      if (!visit) throw notFound('visit')
      const known = cache.get(visitId, visit.eventCount, visit.headHash)
      const events = known ?? (await readEvents(app, visitId, transaction))
      const appended = await work({ visit, events, transaction })
      const isNew = appended.filter((e) => (e.seq as number) > events.length)
      return { appended, log: [...events, ...isNew] }
    },
  )
  cache.put(visitId, outcome.log)
  return outcome.appended
}

export async function appendGuarded(
  app: App,
  actor: Person,
  log: OpenLog,
  expected: number,
  drafts: readonly EventDraft[],
  attested = false,
): Promise<VisitEvent[]> {
  if (expected > log.events.length) {
    throw new ServiceError(
      'conflict',
      `This visit has ${log.events.length} entries, not ${expected}. Read it again, then send yours.`,
      { conflict: 'unknown-events' },
    )
  }
  const stored = new Map(log.events.map((e) => [e.id, e]))
  const ids = new Set(drafts.map((d) => d.id))
  for (const draft of drafts) refuseChanged(draft, stored.get(draft.id))
  const fresh = drafts.filter((d) => !stored.has(d.id))
  const newer = log.events.slice(expected)
  if (fresh.length > 0 && newer.some((e) => !ids.has(e.id))) {
    const who = [...new Set(newer.filter((e) => !ids.has(e.id)).map((e) => e.personName))].join(
      ', ',
    )
    throw new ServiceError(
      'conflict',
      `${who} wrote to this visit meanwhile. Read what was added, then send yours again.`,
      {
        conflict: 'newer-events',
        events: newer,
      },
    )
  }
  const stamp = { personId: actor.id, personName: actor.name }
  let events = [...log.events]
  for (const draft of fresh) {
    const person = await claimsChecked(app, actor, log, draft)
    const refusal = guard(events, draft, { library: app.library, person, attested })
    if (refusal)
      throw new ServiceError('refused', `${refusal.why} ${refusal.todo}`, {
        ...refusal,
        event: draft.id,
      })
    events = [...events, { ...draft, ...stamp }]
  }
  const added = await appendRows(
    app,
    actor,
    log.visit.id,
    { count: log.visit.eventCount, headHash: log.visit.headHash },
    fresh,
    log.transaction,
  )
  if (added.length > 0) {
    await followStock(app, log.visit, log.events, added, log.transaction)
    await updateReadTables(app, log, [...log.events, ...added])
  }
  const byId = new Map([...log.events, ...added].map((e) => [e.id, e]))
  return drafts.map((d) => byId.get(d.id) as VisitEvent)
}

function refuseChanged(draft: EventDraft, stored: VisitEvent | undefined): void {
  const same =
    !stored ||
    (stored.kind === draft.kind && canonicalJson(stored.payload) === canonicalJson(draft.payload))
  if (!same) {
    throw new ServiceError(
      'conflict',
      'This event is in the log already with other content. Make a new id for a new event.',
      {
        conflict: 'changed-event',
        event: draft.id,
      },
    )
  }
}

/** Keeps the visit list and the due list in step with the log. */
export async function updateReadTables(
  app: App,
  log: OpenLog,
  events: readonly VisitEvent[],
): Promise<void> {
  const { visit, transaction } = log
  const state = foldVisit(events)
  const equipment = await app.db.equipment.findByPk(visit.equipmentId, { transaction })
  const standing = equipment
    ? standingAfter(state, app.library, equipment.programme, equipment.anchorOn)
    : null
  const head = {
    eventCount: events.length,
    headHash: events.at(-1)?.hash ?? visit.headHash,
  }
  await sealHead(app, { id: visit.id, ...head }, transaction)
  await app.db.visits.update(
    {
      state: stateName(state),
      done: state.signed ? [...state.done, 'as-left'] : [...state.done],
      skipped: [...state.skipped],
      outcome: state.signed?.outcome ?? null,
      certificateId: state.certificate?.certificateId ?? null,
      certificateNumber: state.certificate?.number ?? null,
      ...head,
    },
    { where: { id: visit.id }, transaction },
  )
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
        lastTestedOn: { [Op.or]: [{ [Op.is]: null }, { [Op.lte]: standing.testedOn }] },
      },
      transaction,
    },
  )
}

function stateName(state: VisitState): VisitTableRow['state'] {
  if (state.signed) return 'signed'
  if (state.stopped) return 'stopped'
  const written = Object.values(state.kinds).some((k) => k !== 'planned' && k !== 'pinned')
  return written ? 'under-way' : 'planned'
}

/** Technicians write to their own visits; the office adds notes, asks for corrections, and decides to stop. */
const OFFICE_KINDS = ['note', 'correction-asked', 'stopped']

function mayWrite(actor: Person, visit: VisitTableRow, drafts: readonly EventDraft[]): void {
  if (actor.roles.includes('technician') && visit.technicianId === actor.id) return
  const office = actor.roles.includes('reviewer') || actor.roles.includes('planner')
  if (office && drafts.every((d) => OFFICE_KINDS.includes(d.kind))) return
  throw forbidden(
    'Only the technician of this visit records its work. Ask the planner to hand it over.',
  )
}

/** Checks every payload against its kind and every clock against reason. @throws InvalidInput */
export function checkDrafts(app: App, drafts: readonly EventDraft[]): EventDraft[] {
  const latest = app.now().plus({ hours: CLOCK_AHEAD_HOURS })
  const ids = new Set<string>()
  return drafts.map((draft, index) => {
    const at = `events[${index}]`
    if (ids.has(draft.id))
      throw new InvalidInput([{ path: `${at}.id`, message: 'stands twice in this batch' }])
    ids.add(draft.id)
    if (DateTime.fromISO(draft.deviceTime) > latest) {
      throw new InvalidInput([
        { path: `${at}.deviceTime`, message: 'lies in the future: set the clock of the device' },
      ])
    }
    try {
      return { ...draft, payload: check(payloads[draft.kind] as never, draft.payload) }
    } catch (error) {
      if (!(error instanceof InvalidInput)) throw error
      throw new InvalidInput(
        error.faults.map((f) => ({ ...f, path: `${at}.payload${f.path ? `.${f.path}` : ''}` })),
      )
    }
  })
}

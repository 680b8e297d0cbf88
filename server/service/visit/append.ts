import type { Id } from '@uvanta/core/schema'
import type { Person } from '@uvanta/contract'
import { InvalidInput } from '@uvanta/core/schema'
import { secondsBetween } from '@uvanta/core/calendar'
import {
  canonicalJson,
  checkDraft,
  CLOCK_OFF_S,
  decide,
  type EventDraft,
  type GuardContext,
  traitsOf,
  upcast,
  type VisitEvent,
} from '@uvanta/core/visit'
import { DateTime } from 'luxon'
import type { App } from '../../context'
import { forbidden, ServiceError } from '../errors'
import { claimsChecked } from './claims'
import { planReturn } from './followUp'
import { closedByKey } from './close'
import { type HeldVisit, inLog, type OpenLog } from './openLog'
import { writeEvents } from './write'

/** How far a device's clock may run ahead. */
const CLOCK_AHEAD_HOURS = 26

/**
 * Appends a batch to a visit's log: all or nothing, in order, and harmless when sent twice.
 * @param sentAt what the clock of the device says while it sends
 * @throws ServiceError conflict (with the newer events) when someone else wrote meanwhile,
 *   refused when a guard says so, InvalidInput when an event is malformed
 */
export async function appendEvents(
  app: App,
  actor: Person,
  visitId: Id<'visit'>,
  expected: number,
  drafts: readonly EventDraft[],
  sentAt?: string,
): Promise<VisitEvent[]> {
  const checked = withClock(app, checkDrafts(app, drafts), sentAt)
  const closing = closingByKey(checked)
  let byId = new Map<string, VisitEvent>()
  await inLog(app, visitId, async (log) => {
    mayWrite(actor, log.visit, checked)
    const after = await appendGuarded(app, actor, log, expected, checked)
    byId = new Map(after.events.map((e) => [e.id, e]))
    if (closing && !log.state.signed) return closedByKey(app, actor, after, closing)
    if (!log.state.stopped) await planReturn(app, actor, after)
    return after
  })
  return checked.map((d) => byId.get(d.id) as VisitEvent)
}

const YEAR_S = 31_536_000

/** Adds to entries how far the clock of their device is off, when that is more than a little. */
function withClock(
  app: App,
  drafts: readonly EventDraft[],
  sentAt: string | undefined,
): (EventDraft & Pick<VisitEvent, 'clockAheadS'>)[] {
  const saidS = sentAt ? Math.round(secondsBetween(app.now().toISO(), sentAt)) : 0
  // A year says as much as a thousand, and has room in its column.
  const aheadS = Math.max(-YEAR_S, Math.min(YEAR_S, saidS))
  return drafts.map((d) => (Math.abs(aheadS) > CLOCK_OFF_S ? { ...d, clockAheadS: aheadS } : d))
}

/**
 * The signature that closes the visit without the password: last of what is sent, with the key of a device.
 * @throws ServiceError refused when it is signed with neither
 */
function closingByKey(drafts: readonly EventDraft[]): EventDraft<'signed'> | undefined {
  const signed = drafts.find((d) => d.kind === 'signed')
  if (!signed) return undefined
  if (!signed.payload.byKey || signed !== drafts.at(-1)) {
    throw new ServiceError(
      'refused',
      'A visit is signed with the password, or last of all with the key of a device.',
      'Sign it on its last station.',
      { code: 'signature-place', event: signed.id },
    )
  }
  return signed
}

/**
 * Appends what a guard lets stand, as a whole: the same decision as on the device that sends it.
 * @returns the log as it then stands
 */
export async function appendGuarded(
  app: App,
  actor: Person,
  log: OpenLog,
  expected: number,
  drafts: readonly EventDraft[],
  attested = false,
): Promise<OpenLog> {
  if (expected > log.events.length) {
    throw new ServiceError(
      'conflict',
      `This visit has ${log.events.length} entries, not ${expected}.`,
      'Read it again, then send yours.',
      { code: 'unknown-events' },
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
      `${who} wrote to this visit meanwhile.`,
      'Read what was added, then send yours again.',
      {
        code: 'newer-events',
        events: newer,
      },
    )
  }
  const people = new Map<string, GuardContext['person']>()
  for (const draft of fresh) people.set(draft.id, await claimsChecked(app, actor, log, draft))
  // With its time of arrival: what a signature waits for may arrive together with it.
  const by = { personId: actor.id, personName: actor.name, serverTime: app.now().toISO() }
  const decision = decide(log, fresh, by, ({ id }) => ({
    library: app.shelf.library,
    person: people.get(id) ?? { ...actor, licences: [] },
    attested,
  }))
  if ('refusal' in decision) {
    const { refusal, of } = decision
    throw new ServiceError('refused', refusal.why, refusal.remedy, {
      ...refusal,
      event: of.id,
    })
  }
  return writeEvents(app, actor, log, fresh)
}

function refuseChanged(draft: EventDraft, stored: VisitEvent | undefined): void {
  // What was written in an earlier form is the same when it says the same in the newest one.
  const same =
    !stored ||
    (stored.kind === draft.kind &&
      canonicalJson(upcast(stored).payload) === canonicalJson(draft.payload))
  if (!same) {
    throw new ServiceError(
      'conflict',
      'This event is in the log already with other content.',
      'Make a new id for a new event.',
      {
        code: 'changed-event',
        event: draft.id,
      },
    )
  }
}

/** Technicians write to their own visits; the office adds notes, asks for corrections, and decides to stop. */
function mayWrite(actor: Person, visit: HeldVisit, drafts: readonly EventDraft[]): void {
  // Nobody answers for the times of his own work.
  const attests = drafts.some((d) => d.kind === 'times-attested')
  if (attests && visit.technicianId === actor.id)
    throw forbidden(
      'Nobody releases the times of their own visit.',
      'Ask another reviewer or administrator.',
    )
  if (actor.roles.includes('technician') && visit.technicianId === actor.id) return
  const office =
    actor.roles.includes('reviewer') ||
    actor.roles.includes('planner') ||
    (actor.roles.includes('administrator') && attests)
  if (office && drafts.every((d) => traitsOf(d.kind).by === 'office')) return
  throw forbidden(
    'Only the technician of this visit records its work.',
    'Ask the planner to hand it over.',
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
      return checkDraft(draft)
    } catch (error) {
      if (!(error instanceof InvalidInput)) throw error
      throw new InvalidInput(
        error.faults.map((f) => ({ ...f, path: `${at}.payload${f.path ? `.${f.path}` : ''}` })),
      )
    }
  })
}

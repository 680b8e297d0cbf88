import type { Id } from '../../schema'
import { clockDoubt, isFarOff } from './clock'
import { type EventKind, type PayloadOf, traitsOf, type VisitEvent } from './events'
import { closingEvolvers } from './evolve/closing'
import type { Evolvers } from './evolve/evolver'
import { fieldTestEvolvers } from './evolve/fieldTest'
import { guideEvolvers } from './evolve/guide'
import { visitEvolvers } from './evolve/visit'
import { type Recorded, recorded } from './recorded'
import { emptyVisit, type StandingCorrection, type VisitState } from './state'
import { upcast } from './upcast'

/** A log with the state that it folds to, which is carried on from entry to entry. */
export interface FoldedLog {
  readonly events: readonly VisitEvent[]
  readonly state: VisitState
}

export const emptyLog: FoldedLog = { events: [], state: emptyVisit }

/**
 * The log with entries behind it: what was folded is carried on. Only what reaches back, a correction
 * or what is taken back, has the log folded anew.
 */
export function appended(log: FoldedLog, added: readonly VisitEvent[]): FoldedLog {
  const events = [...log.events, ...added]
  if (added.some((e) => reachOf(e).length > 0)) return { events, state: foldVisit(events) }
  return { events, state: added.reduce(step, log.state) }
}

/**
 * The state of a visit from its log. Pure: the same events give the same state in the browser, on
 * the server and three years later. Corrections are looked up first, so that a corrected event
 * counts as what it should have said, at the place in the order where it stands.
 */
export function foldVisit(events: readonly VisitEvent[]): VisitState {
  return events.reduce(step, { ...emptyVisit, ...correctionsOf(events) })
}

function step(state: VisitState, event: VisitEvent): VisitState {
  const correction = state.corrections[event.id]
  const begun = state.begun || !BEFORE_BEGUN.includes(event.kind)
  const counted = { ...state, begun, count: state.count + 1 }
  if (correction?.withdraw) return counted
  return withClock(evolve(counted, upcast(asCorrected(event, correction))), event)
}

/** An entry as it should have been, in the form that the correction is written in. */
function asCorrected(
  event: VisitEvent,
  correction: PayloadOf<'correction'> | undefined,
): VisitEvent {
  if (!correction?.payload) return event
  const { payload, version = 1 } = correction
  return { ...event, payload, version } as VisitEvent
}

/** Kinds that stand in the log of a visit which nobody has begun. */
const BEFORE_BEGUN: readonly EventKind[] = ['planned', 'pinned', 'replanned', 'replan-asked']

const evolvers: Evolvers = {
  ...visitEvolvers,
  ...fieldTestEvolvers,
  ...guideEvolvers,
  ...closingEvolvers,
}

function evolve<K extends EventKind>(state: VisitState, event: VisitEvent<K>): VisitState {
  return evolvers[event.kind](state, event)
}

function withClock(state: VisitState, event: VisitEvent): VisitState {
  const doubt =
    event.kind === 'planned'
      ? null
      : clockDoubt(event, { plannedAt: state.plannedAt, zone: state.plan?.zone })
  const clocked = clockOf(state, event)
  return doubt
    ? { ...clocked, clockDoubts: [...clocked.clockDoubts, { of: event.id, doubt }] }
    : clocked
}

/** Whose clock is far off, until the same person writes with a right one. What the server writes is no word of a device. */
function clockOf(state: VisitState, event: VisitEvent): VisitState {
  if (!event.serverTime || traitsOf(event.kind).by === 'server') return state
  if (isFarOff(event)) return { ...state, clockFarOff: event.personId }
  return state.clockFarOff === event.personId ? { ...state, clockFarOff: null } : state
}

/** The earlier entries that an entry changes. */
export function reachOf(event: VisitEvent): readonly Id<'event'>[] {
  if (event.kind === 'correction') return [event.payload.of]
  return event.kind === 'undone' ? event.payload.of : []
}

/** The correction of each entry that counts, which is the last one, and those that it took the place of. */
function correctionsOf(events: readonly VisitEvent[]) {
  const corrections: Record<string, StandingCorrection> = {}
  const replaced: Recorded<object>[] = []
  const put = (of: Id<'event'>, correction: StandingCorrection) => {
    const before = corrections[of]
    if (before) replaced.push(before)
    corrections[of] = correction
  }
  for (const event of events) {
    if (event.kind === 'correction') put(event.payload.of, recorded(event))
    if (event.kind === 'undone') {
      const { of: ids, ...when } = recorded(event)
      for (const of of ids)
        put(of, { ...when, of, why: 'taken back at once', withdraw: true, undone: true })
    }
  }
  return { corrections, replaced }
}

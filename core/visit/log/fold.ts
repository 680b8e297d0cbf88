import { DateTime } from 'luxon'
import { check } from '../../schema'
import {
  type EventDraft,
  type EventKind,
  isKind,
  payloads,
  type PayloadOf,
  type RunName,
  type VisitEvent,
} from './events'
import { foldGuide } from './foldGuide'
import type { Station } from './stations'
import {
  type ClockDoubt,
  emptyVisit,
  type HandMove,
  type RunState,
  type Said,
  type VisitState,
} from './state'

/**
 * The state of a visit from its log. Pure: the same events give the same state in the browser, on
 * the server and three years later. Corrections are looked up first, so that a corrected event
 * counts as what it should have said, at the place in the order where it stands.
 */
export function foldVisit(events: readonly VisitEvent[]): VisitState {
  const corrections = correctionsOf(events)
  const start: VisitState = {
    ...emptyVisit,
    corrections,
    kinds: Object.fromEntries(events.map((e) => [e.id, e.kind])),
    count: events.length,
  }
  return events.reduce((state, event) => {
    const correction = corrections[event.id]
    if (correction?.withdraw) return state
    const payload = correction?.payload ?? event.payload
    return withClock(apply(state, { ...event, payload } as VisitEvent), event)
  }, start)
}

/** How long an honest entry may wait on a device without its time being doubted, h. */
const CLOCK_FAR_HOURS = 48
/** How far the clocks of device and server may differ, h. */
const CLOCK_SLACK_HOURS = 1

/**
 * Whether the device’s time of an event proves when it was made: it does not when it lies before the
 * visit was planned, or far from the arrival. What is not sent yet has no doubt.
 */
export function clockDoubt(
  event: Pick<VisitEvent, 'deviceTime' | 'serverTime'>,
  plannedAt: string | undefined,
): ClockDoubt | null {
  if (!event.serverTime) return null
  const time = (iso: string) => DateTime.fromISO(iso, { zone: 'utc' })
  const hoursTo = (from: string, to: string) => time(to).diff(time(from)).as('hours')
  if (plannedAt && hoursTo(event.deviceTime, plannedAt) > CLOCK_SLACK_HOURS) return 'before-planned'
  const late = Math.abs(hoursTo(event.deviceTime, event.serverTime))
  return late > CLOCK_FAR_HOURS ? 'far-from-arrival' : null
}

function withClock(state: VisitState, event: VisitEvent): VisitState {
  const doubt = event.kind === 'planned' ? null : clockDoubt(event, state.plannedAt)
  return doubt ? { ...state, clockDoubts: { ...state.clockDoubts, [event.id]: doubt } } : state
}

function correctionsOf(events: readonly VisitEvent[]) {
  const corrections: Record<string, Said<PayloadOf<'correction'>>> = {}
  for (const event of events) {
    if (isKind(event, 'correction')) corrections[event.payload.of] = said(event)
  }
  return corrections
}

function said<K extends EventKind>(event: VisitEvent<K>): Said<PayloadOf<K>> {
  const payload = event.payload as object
  return {
    ...payload,
    eventId: event.id,
    at: event.deviceTime,
    by: event.personName,
  } as Said<PayloadOf<K>>
}

function apply(state: VisitState, event: VisitEvent): VisitState {
  if (isKind(event, 'planned')) {
    const { pins } = event.payload
    const { serverTime } = event
    return {
      ...state,
      plan: said(event),
      ...(serverTime ? { plannedAt: serverTime } : {}),
      pins: pins ? [pins] : [],
    }
  }
  if (isKind(event, 'pinned')) return { ...state, pins: [...state.pins, event.payload.pins] }
  if (isKind(event, 'note')) return { ...state, notes: [...state.notes, said(event)] }
  if (isKind(event, 'identity')) return { ...state, identity: said(event) }
  if (isKind(event, 'as-found-impossible')) return { ...state, asFoundImpossible: said(event) }
  if (isKind(event, 'test-started')) return startRun(state, event)
  if (isKind(event, 'step-done')) {
    return changeRun({ ...state, handsSinceStep: [] }, event.payload.run, (r) => ({
      stepsDone: r.stepsDone.includes(event.payload.step)
        ? r.stepsDone
        : [...r.stepsDone, event.payload.step],
    }))
  }
  if (isKind(event, 'reading')) {
    return changeRun(state, event.payload.run, (r) => ({
      readings: [...r.readings, said(event)],
      order: lastTaken(r.order, event.payload.item),
    }))
  }
  if (isKind(event, 'answer')) {
    return changeRun(state, event.payload.run, (r) => ({
      answers: [...r.answers, said(event)],
      order: lastTaken(r.order, event.payload.item),
    }))
  }
  if (isKind(event, 'test-finished'))
    return changeRun(state, event.payload.run, () => ({ finished: true }))
  if (isKind(event, 'repair')) return { ...state, repairs: [...state.repairs, said(event)] }
  if (isKind(event, 'station-done')) return finishStation(state, event.payload)
  if (isKind(event, 'reopened')) return reopen(state)
  if (isKind(event, 'valve-moved')) {
    const { element, to } = event.payload
    // What was proved at zero is no longer, once something that was shut is opened.
    const proofs = state.valves[element] === 'shut' && to !== 'shut' ? [] : state.proofs
    const valves = { ...state.valves, [element]: to }
    return handsMoved({ ...state, valves, proofs }, { element, to })
  }
  if (isKind(event, 'hose-moved')) return moveHose(state, event.payload)
  if (isKind(event, 'checked')) {
    const { run } = event.payload
    return {
      ...state,
      checks: { ...state.checks, [run]: said(event) },
      checkedOn: { ...state.checkedOn, [run]: localDateOf(event) },
    }
  }
  if (isKind(event, 'photo')) return { ...state, photos: [...state.photos, said(event)] }
  if (isKind(event, 'result')) return { ...state, results: [...state.results, said(event)] }
  if (isKind(event, 'stopped')) return { ...state, stopped: said(event) }
  if (isKind(event, 'signed')) return { ...state, signed: said(event) }
  if (isKind(event, 'certificate-issued')) {
    return { ...state, certificate: said(event), correctedSinceCertificate: false }
  }
  if (isKind(event, 'certificate-voided')) {
    return { ...state, voided: { ...state.voided, [event.payload.number]: said(event) } }
  }
  if (isKind(event, 'correction-asked')) return { ...state, asked: [...state.asked, said(event)] }
  if (isKind(event, 'correction')) {
    const asked = state.asked.filter((a) => a.of !== event.payload.of)
    return { ...state, asked, ...(state.certificate ? { correctedSinceCertificate: true } : {}) }
  }
  return foldGuide(state, event, said)
}

function moveHose(state: VisitState, { hose, port }: PayloadOf<'hose-moved'>): VisitState {
  const { [hose]: _, ...others } = state.hoses
  const moved = { ...state, hoses: port ? { ...others, [hose]: port } : others }
  return handsMoved(moved, { hose, port })
}

const handsMoved = (state: VisitState, move: HandMove): VisitState => ({
  ...state,
  handsSinceStep: [...state.handsSinceStep, move],
})

/** The last reading or answer of an item stands, so its place is the last one’s. */
const lastTaken = (order: readonly string[], item: string) => [
  ...order.filter((i) => i !== item),
  item,
]

/** The legal date of an event where the device stood. */
export function localDateOf(event: Pick<EventDraft, 'deviceTime' | 'deviceOffset'>): string {
  return DateTime.fromISO(event.deviceTime, { zone: 'utc' })
    .plus({ minutes: event.deviceOffset })
    .toISODate() as string
}

function startRun(state: VisitState, event: VisitEvent<'test-started'>): VisitState {
  const run: RunState = {
    started: said(event),
    date: localDateOf(event),
    stepsDone: [],
    readings: [],
    answers: [],
    order: [],
    finished: false,
  }
  return { ...state, handsSinceStep: [], runs: { ...state.runs, [event.payload.run]: run } }
}

function changeRun(
  state: VisitState,
  name: RunName,
  change: (run: RunState) => Partial<RunState>,
): VisitState {
  const run = state.runs[name]
  return run ? { ...state, runs: { ...state.runs, [name]: { ...run, ...change(run) } } } : state
}

const REPAIR_STATIONS: readonly Station[] = ['make-safe', 'open-up', 'rebuild']

function finishStation(
  state: VisitState,
  { station, skipTo }: PayloadOf<'station-done'>,
): VisitState {
  const done = state.done.includes(station) ? state.done : [...state.done, station]
  return { ...state, done, skipped: skipTo ? REPAIR_STATIONS : state.skipped }
}

/** A failed as-left test goes back to Open up; the failed run is kept beside. */
function reopen(state: VisitState): VisitState {
  const failed = state.runs['as-left']
  const { 'as-left': _, ...runs } = state.runs
  const { 'as-left': __, ...checks } = state.checks
  const { kitClosed: ___, ...rest } = state
  // Under a guide it was brought back under pressure on record, and is made safe again.
  const again = state.skipped.length > 0 || state.guide !== undefined
  const kept = ['prepare', 'arrive', 'as-found', ...(again ? [] : ['make-safe'])]
  return {
    ...rest,
    runs,
    checks,
    earlierAsLeft: failed ? [...state.earlierAsLeft, failed] : state.earlierAsLeft,
    guideSteps: state.guideSteps.filter((s) => kept.includes(s.at)),
    guideRounds: [],
    guideTimers: [],
    done: state.done.filter((s) => kept.includes(s)),
    skipped: [],
  }
}

/** Checks a draft's payload against its kind. @throws InvalidInput */
export function checkDraft(draft: EventDraft): EventDraft {
  return { ...draft, payload: check(payloads[draft.kind] as never, draft.payload) }
}

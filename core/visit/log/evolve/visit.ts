import type { PayloadOf, VisitEvent } from '../events'
import { legalDate } from '../clock'
import type { visitKinds } from '../kinds/visit'
import { recorded } from '../recorded'
import { keepReplaced } from './replaced'
import type { EarlierCheck, HandMove, VisitState } from '../state'
import type { Station } from '../stations'
import type { RunName } from '../words'
import type { Evolvers } from './evolver'
import { earlierRun } from './earlierRun'

/** What planning, looking, turning and finishing do to a visit. */
export const visitEvolvers: Evolvers<keyof typeof visitKinds> = {
  planned: (state, event) => {
    const { pins } = event.payload
    const { serverTime } = event
    return {
      ...state,
      plan: recorded(event),
      ...(serverTime ? { plannedAt: serverTime } : {}),
      pins: pins ? [pins] : [],
    }
  },
  pinned: (state, { payload }) => ({ ...state, pins: [...state.pins, payload.pins] }),
  replanned: (state, { payload: { plannedOn, time } }) => {
    if (!state.plan) return state
    const { time: _, ...plan } = state.plan
    return {
      ...state,
      ...keepReplaced(state, state.replanAsked),
      plan: { ...plan, plannedOn, ...(time ? { time } : {}) },
      replanAsked: undefined,
    }
  },
  'replan-asked': (state, event) => ({
    ...state,
    ...keepReplaced(state, state.replanAsked),
    replanAsked: recorded(event),
  }),
  note: (state, event) => ({ ...state, notes: [...state.notes, recorded(event)] }),
  identity: (state, event) => ({
    ...state,
    ...keepReplaced(state, state.identity),
    identity: recorded(event),
  }),
  repair: (state, event) => ({ ...state, repairs: [...state.repairs, recorded(event)] }),
  'station-done': (state, { payload: { station, skipTo } }) => ({
    ...state,
    done: state.done.includes(station) ? state.done : [...state.done, station],
    skipped: skipTo ? REPAIR_STATIONS : state.skipped,
  }),
  reopened: reopen,
  'valve-moved': (state, { payload: { element, to } }) => {
    // What was proved at zero is no longer, once something that was shut is opened.
    const lapsed = state.valves[element] === 'shut' && to !== 'shut' ? state.proofs : []
    const proofs = lapsed.length > 0 ? [] : state.proofs
    const valves = { ...state.valves, [element]: to }
    const kept = keepReplaced(state, ...lapsed)
    return handsMoved({ ...state, ...kept, valves, proofs }, { element, to })
  },
  'hose-moved': (state, { payload }) => moveHose(state, payload),
  applied: (state, { payload }) =>
    handsMoved(
      { ...state, applied: { ...state.applied, [payload.source]: payload.to } },
      { source: payload.source, to: payload.to },
    ),
  adjusted: (state, event) => ({ ...state, adjusted: [...state.adjusted, recorded(event)] }),
  checked: (state, event) => {
    const { run } = event.payload
    return {
      ...state,
      earlierChecks: [...state.earlierChecks, ...earlierCheck(state, run)],
      checks: { ...state.checks, [run]: recorded(event) },
      checkedOn: { ...state.checkedOn, [run]: legalDate(state, event) },
    }
  },
  photo: (state, event) => ({ ...state, photos: [...state.photos, recorded(event)] }),
  result: (state, event) => ({ ...state, results: [...state.results, recorded(event)] }),
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

const REPAIR_STATIONS: readonly Station[] = ['make-safe', 'open-up', 'rebuild']

/** The check of a run as one that another comes after; none where there is none. */
function earlierCheck(state: VisitState, run: RunName, reason?: string): EarlierCheck[] {
  const check = state.checks[run]
  if (!check) return []
  return [{ ...check, date: state.checkedOn[run] ?? '', ...(reason ? { reason } : {}) }]
}

/** A failed as-left test goes back to Open up; it stays on the record, with the work that led to it. */
function reopen(state: VisitState, event: VisitEvent<'reopened'>): VisitState {
  const { reason } = event.payload
  const { 'as-left': _, ...runs } = state.runs
  const { 'as-left': __, ...checks } = state.checks
  const { kitClosed, ...rest } = state
  // Under a guide it was brought back under pressure on record, and is made safe again.
  const again = state.skipped.length > 0 || state.guide !== undefined
  const kept = ['prepare', 'arrive', 'as-found', ...(again ? [] : ['make-safe'])]
  const goneSteps = state.guideSteps.filter((s) => !kept.includes(s.at))
  return {
    ...rest,
    ...keepReplaced(state, kitClosed, ...goneSteps, ...state.guideRounds, ...state.guideTimers),
    runs,
    checks,
    earlierRuns: [...state.earlierRuns, ...earlierRun(state, 'as-left', reason)],
    earlierChecks: [...state.earlierChecks, ...earlierCheck(state, 'as-left', reason)],
    guideSteps: state.guideSteps.filter((s) => kept.includes(s.at)),
    guideRounds: [],
    guideTimers: [],
    done: state.done.filter((s) => kept.includes(s)),
    skipped: [],
  }
}

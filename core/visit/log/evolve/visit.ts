import type { PayloadOf } from '../events'
import { localDateOf } from '../clock'
import type { visitKinds } from '../kinds/visit'
import { said } from '../said'
import type { HandMove, VisitState } from '../state'
import type { Station } from '../stations'
import type { Evolvers } from './evolver'

/** What planning, looking, turning and finishing do to a visit. */
export const visitEvolvers: Evolvers<keyof typeof visitKinds> = {
  planned: (state, event) => {
    const { pins } = event.payload
    const { serverTime } = event
    return {
      ...state,
      plan: said(event),
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
      plan: { ...plan, plannedOn, ...(time ? { time } : {}) },
      replanAsked: undefined,
    }
  },
  'replan-asked': (state, event) => ({ ...state, replanAsked: said(event) }),
  note: (state, event) => ({ ...state, notes: [...state.notes, said(event)] }),
  identity: (state, event) => ({ ...state, identity: said(event) }),
  repair: (state, event) => ({ ...state, repairs: [...state.repairs, said(event)] }),
  'station-done': (state, { payload: { station, skipTo } }) => ({
    ...state,
    done: state.done.includes(station) ? state.done : [...state.done, station],
    skipped: skipTo ? REPAIR_STATIONS : state.skipped,
  }),
  reopened: reopen,
  'valve-moved': (state, { payload: { element, to } }) => {
    // What was proved at zero is no longer, once something that was shut is opened.
    const proofs = state.valves[element] === 'shut' && to !== 'shut' ? [] : state.proofs
    const valves = { ...state.valves, [element]: to }
    return handsMoved({ ...state, valves, proofs }, { element, to })
  },
  'hose-moved': (state, { payload }) => moveHose(state, payload),
  applied: (state, { payload }) =>
    handsMoved(
      { ...state, applied: { ...state.applied, [payload.source]: payload.to } },
      { source: payload.source, to: payload.to },
    ),
  adjusted: (state, event) => ({ ...state, adjusted: [...state.adjusted, said(event)] }),
  checked: (state, event) => {
    const { run } = event.payload
    return {
      ...state,
      checks: { ...state.checks, [run]: said(event) },
      checkedOn: { ...state.checkedOn, [run]: localDateOf(event) },
    }
  },
  photo: (state, event) => ({ ...state, photos: [...state.photos, said(event)] }),
  result: (state, event) => ({ ...state, results: [...state.results, said(event)] }),
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

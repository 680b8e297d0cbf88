import type { guideKinds } from '../kinds/guide'
import { recorded } from '../recorded'
import { keepReplaced } from './replaced'
import type { VisitState } from '../state'
import type { Evolvers } from './evolver'

/** What the job guide, making safe and the kit do to a visit. */
export const guideEvolvers: Evolvers<keyof typeof guideKinds> = {
  'guide-chosen': (state, event) => ({
    ...state,
    ...keepReplaced(state, state.guide, ...state.guideSteps),
    guide: recorded(event),
    guideSteps: [],
  }),
  'guide-value': (state, event) => ({
    ...state,
    guideValues: [...state.guideValues, recorded(event)],
  }),
  'guide-step': (state, event) => ({
    ...state,
    guideSteps: [...state.guideSteps, recorded(event)],
  }),
  'guide-round': (state, event) => ({
    ...state,
    guideRounds: [...state.guideRounds, recorded(event)],
  }),
  'guide-timer': (state, event) => ({
    ...state,
    guideTimers: [...state.guideTimers, recorded(event)],
  }),
  'guide-redo': (state, { payload }) => redo(state, payload.from),
  'zone-proved': (state, event) => {
    const { zone } = event.payload
    const others = state.proofs.filter((p) => p.zone !== zone)
    const before = state.proofs.filter((p) => p.zone === zone)
    return {
      ...state,
      ...keepReplaced(state, ...before),
      proofs: [...others, recorded(event)],
    }
  },
  lock: (state, event) => {
    const { element, on } = event.payload
    const { [element]: before, ...others } = state.locks
    const entry = recorded(event)
    return {
      ...state,
      ...keepReplaced(state, before, on ? undefined : entry),
      locks: on ? { ...others, [element]: entry } : others,
    }
  },
  prepared: (state, event) => ({
    ...state,
    ...keepReplaced(state, state.prepared[event.payload.item]),
    prepared: { ...state.prepared, [event.payload.item]: recorded(event) },
  }),
  'kit-taken': (state, event) => {
    const { job } = event.payload
    const kept = keepReplaced(state, job === undefined ? state.kit : state.jobKits[job])
    return job === undefined
      ? { ...state, ...kept, kit: recorded(event) }
      : { ...state, ...kept, jobKits: { ...state.jobKits, [job]: recorded(event) } }
  },
  'kit-closed': (state, event) => ({
    ...state,
    ...keepReplaced(state, state.kitClosed),
    kitClosed: recorded(event),
  }),
}

/** Everything from a step on, in the order in which it was done, is to be done again. */
function redo(state: VisitState, from: string): VisitState {
  const first = state.guideSteps.findIndex((s) => s.step === from)
  if (first < 0) return state
  const { at } = state.guideSteps[first] as (typeof state.guideSteps)[number]
  const undone = state.guideSteps.slice(first)
  const gone = new Set(undone.map((s) => s.step))
  return {
    ...state,
    ...keepReplaced(
      state,
      ...undone,
      ...state.guideRounds.filter((r) => gone.has(r.step)),
      ...state.guideTimers.filter((t) => gone.has(t.step)),
    ),
    done: state.done.filter((s) => s !== at),
    guideSteps: state.guideSteps.slice(0, first),
    guideRounds: state.guideRounds.filter((r) => !gone.has(r.step)),
    guideTimers: state.guideTimers.filter((t) => !gone.has(t.step)),
  }
}

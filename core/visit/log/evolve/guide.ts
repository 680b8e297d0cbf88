import type { guideKinds } from '../kinds/guide'
import { said } from '../said'
import type { VisitState } from '../state'
import type { Evolvers } from './evolver'

/** What the job guide, making safe and the kit do to a visit. */
export const guideEvolvers: Evolvers<keyof typeof guideKinds> = {
  'guide-chosen': (state, event) => ({ ...state, guide: said(event), guideSteps: [] }),
  'guide-value': (state, event) => ({ ...state, guideValues: [...state.guideValues, said(event)] }),
  'guide-step': (state, event) => {
    const step = { ...said(event), at: event.payload.at, when: event.deviceTime }
    return { ...state, guideSteps: [...state.guideSteps, step] }
  },
  'guide-round': (state, event) => ({ ...state, guideRounds: [...state.guideRounds, said(event)] }),
  'guide-timer': (state, event) => ({ ...state, guideTimers: [...state.guideTimers, said(event)] }),
  'guide-redo': (state, { payload }) => redo(state, payload.from),
  'zone-proved': (state, event) => {
    const others = state.proofs.filter((p) => p.zone !== event.payload.zone)
    return { ...state, proofs: [...others, said(event)] }
  },
  lock: (state, event) => {
    const { element, on } = event.payload
    const { [element]: _, ...others } = state.locks
    return { ...state, locks: on ? { ...others, [element]: said(event) } : others }
  },
  prepared: (state, event) => ({
    ...state,
    prepared: { ...state.prepared, [event.payload.item]: said(event) },
  }),
  'kit-taken': (state, event) => {
    const { job } = event.payload
    return job === undefined
      ? { ...state, kit: said(event) }
      : { ...state, jobKits: { ...state.jobKits, [job]: said(event) } }
  },
  'kit-closed': (state, event) => ({ ...state, kitClosed: said(event) }),
}

/** Everything from a step on, in the order in which it was done, is to be done again. */
function redo(state: VisitState, from: string): VisitState {
  const first = state.guideSteps.findIndex((s) => s.step === from)
  if (first < 0) return state
  const { at } = state.guideSteps[first] as (typeof state.guideSteps)[number]
  const gone = new Set(state.guideSteps.slice(first).map((s) => s.step))
  return {
    ...state,
    done: state.done.filter((s) => s !== at),
    guideSteps: state.guideSteps.slice(0, first),
    guideRounds: state.guideRounds.filter((r) => !gone.has(r.step)),
    guideTimers: state.guideTimers.filter((t) => !gone.has(t.step)),
  }
}

import { type EventKind, isKind, type PayloadOf, type VisitEvent } from './events'
import type { Said, VisitState } from './state'

type SayIt = <K extends EventKind>(event: VisitEvent<K>) => Said<PayloadOf<K>>

/** What events of the job guide, of making safe and of the kit do to a visit. */
export function foldGuide(state: VisitState, event: VisitEvent, said: SayIt): VisitState {
  if (isKind(event, 'guide-chosen')) return { ...state, guide: said(event), guideSteps: [] }
  if (isKind(event, 'guide-value'))
    return { ...state, guideValues: [...state.guideValues, said(event)] }
  if (isKind(event, 'guide-step')) return stepDone(state, event, said)
  if (isKind(event, 'guide-round'))
    return { ...state, guideRounds: [...state.guideRounds, said(event)] }
  if (isKind(event, 'guide-timer'))
    return { ...state, guideTimers: [...state.guideTimers, said(event)] }
  if (isKind(event, 'guide-redo')) return redo(state, event.payload.from)
  if (isKind(event, 'zone-proved')) {
    const others = state.proofs.filter((p) => p.zone !== event.payload.zone)
    return { ...state, proofs: [...others, said(event)] }
  }
  if (isKind(event, 'lock')) return turnLock(state, event, said)
  if (isKind(event, 'prepared'))
    return { ...state, prepared: { ...state.prepared, [event.payload.item]: said(event) } }
  if (isKind(event, 'kit-taken')) return { ...state, kit: said(event) }
  if (isKind(event, 'kit-closed')) return { ...state, kitClosed: said(event) }
  return state
}

function stepDone(state: VisitState, event: VisitEvent<'guide-step'>, said: SayIt): VisitState {
  const step = { ...said(event), at: event.payload.at, when: event.deviceTime }
  return { ...state, guideSteps: [...state.guideSteps, step] }
}

/** Everything from a step on, in the order in which it was done, is to be done again. */
function redo(state: VisitState, from: string): VisitState {
  const first = state.guideSteps.findIndex((s) => s.step === from)
  if (first < 0) return state
  const gone = new Set(state.guideSteps.slice(first).map((s) => s.step))
  return {
    ...state,
    guideSteps: state.guideSteps.slice(0, first),
    guideRounds: state.guideRounds.filter((r) => !gone.has(r.step)),
    guideTimers: state.guideTimers.filter((t) => !gone.has(t.step)),
  }
}

function turnLock(state: VisitState, event: VisitEvent<'lock'>, said: SayIt): VisitState {
  const { element, on } = event.payload
  const { [element]: _, ...others } = state.locks
  return { ...state, locks: on ? { ...others, [element]: said(event) } : others }
}

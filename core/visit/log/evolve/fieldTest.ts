import type { VisitEvent } from '../events'
import { localDateOf } from '../clock'
import type { fieldTestKinds } from '../kinds/fieldTest'
import { said } from '../said'
import type { RunState, VisitState } from '../state'
import type { RunName } from '../words'
import type { Evolvers } from './evolver'

/** What a field test does to a visit. */
export const fieldTestEvolvers: Evolvers<keyof typeof fieldTestKinds> = {
  'as-found-impossible': (state, event) => ({ ...state, asFoundImpossible: said(event) }),
  'test-started': startRun,
  'step-done': (state, { payload: { run, step } }) =>
    changeRun({ ...state, handsSinceStep: [] }, run, (r) => ({
      stepsDone: r.stepsDone.includes(step) ? r.stepsDone : [...r.stepsDone, step],
    })),
  reading: (state, event) =>
    changeRun(state, event.payload.run, (r) => ({
      readings: [...r.readings, said(event)],
      order: lastTaken(r.order, event.payload.item),
    })),
  answer: (state, event) =>
    changeRun(state, event.payload.run, (r) => ({
      answers: [...r.answers, said(event)],
      order: lastTaken(r.order, event.payload.item),
    })),
  'test-finished': (state, { payload }) =>
    changeRun(state, payload.run, () => ({ finished: true })),
}

/** The last reading or answer of an item stands, so its place is the last one’s. */
const lastTaken = (order: readonly string[], item: string) => [
  ...order.filter((i) => i !== item),
  item,
]

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

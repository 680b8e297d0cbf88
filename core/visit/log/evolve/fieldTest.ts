import type { VisitEvent } from '../events'
import { legalDate } from '../clock'
import type { fieldTestKinds } from '../kinds/fieldTest'
import { recorded } from '../recorded'
import { earlierRun } from './earlierRun'
import { keepReplaced } from './replaced'
import type { RunState, VisitState } from '../state'
import type { RunName } from '../words'
import type { Evolvers } from './evolver'

/** What a field test does to a visit. */
export const fieldTestEvolvers: Evolvers<keyof typeof fieldTestKinds> = {
  'as-found-impossible': (state, event) => ({
    ...state,
    ...keepReplaced(state, state.asFoundImpossible),
    asFoundImpossible: recorded(event),
  }),
  'test-started': startRun,
  'step-done': (state, { payload: { run, step } }) =>
    changeRun({ ...state, handsSinceStep: [] }, run, (r) => ({
      stepsDone: r.stepsDone.includes(step) ? r.stepsDone : [...r.stepsDone, step],
    })),
  reading: (state, event) =>
    changeRun(state, event.payload.run, (r) => ({
      readings: [...r.readings, { ...recorded(event), date: legalDate(state, event) }],
      order: lastTaken(r.order, event.payload.item),
    })),
  answer: (state, event) =>
    changeRun(state, event.payload.run, (r) => ({
      answers: [...r.answers, recorded(event)],
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
    started: recorded(event),
    date: legalDate(state, event),
    stepsDone: [],
    readings: [],
    answers: [],
    order: [],
    finished: false,
  }
  const name = event.payload.run
  return {
    ...state,
    handsSinceStep: [],
    // The guard refuses a second start; logs from before it may hold one, and lose nothing by it.
    earlierRuns: [...state.earlierRuns, ...earlierRun(state, name)],
    runs: { ...state.runs, [name]: run },
  }
}

function changeRun(
  state: VisitState,
  name: RunName,
  change: (run: RunState) => Partial<RunState>,
): VisitState {
  const run = state.runs[name]
  return run ? { ...state, runs: { ...state.runs, [name]: { ...run, ...change(run) } } } : state
}

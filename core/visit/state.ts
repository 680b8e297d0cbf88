import type { HoseName, Opening } from '../assembly'
import type { PayloadOf, RunName, Station, VisitEvent } from './events'

/** A payload together with the event that said it. */
export type Said<T> = T & { readonly eventId: string; readonly at: string; readonly by: string }

export interface RunState {
  readonly started: Said<PayloadOf<'test-started'>>
  /** Legal date of the test where it was made. */
  readonly date: string
  readonly stepsDone: readonly string[]
  readonly readings: readonly Said<PayloadOf<'reading'>>[]
  readonly answers: readonly Said<PayloadOf<'answer'>>[]
  /** Items in the order in which they were first recorded. */
  readonly order: readonly string[]
  readonly finished: boolean
}

/** A valve turned, or a hose moved. */
export type HandMove = PayloadOf<'valve-moved'> | PayloadOf<'hose-moved'>

export interface VisitState {
  readonly plan?: Said<PayloadOf<'planned'>>
  readonly identity?: Said<PayloadOf<'identity'>>
  readonly asFoundImpossible?: Said<PayloadOf<'as-found-impossible'>>
  readonly runs: Readonly<Partial<Record<RunName, RunState>>>
  /** As-left runs that failed before a reopening, kept for the record. */
  readonly earlierAsLeft: readonly RunState[]
  readonly repairs: readonly Said<PayloadOf<'repair'>>[]
  readonly notes: readonly Said<PayloadOf<'note'>>[]
  readonly done: readonly Station[]
  readonly skipped: readonly Station[]
  /** Last commanded position of each valve and cock. */
  readonly valves: Readonly<Record<string, Opening>>
  /** The cock that each hose of the test kit is fitted to. */
  readonly hoses: Readonly<Partial<Record<HoseName, string>>>
  /** What hands did since the last finished step, so that a step is taken up where it was left. */
  readonly handsSinceStep: readonly HandMove[]
  readonly guide?: Said<PayloadOf<'guide-chosen'>>
  readonly guideValues: readonly Said<PayloadOf<'guide-value'>>[]
  readonly guideSteps: readonly Said<PayloadOf<'guide-step'>>[]
  readonly stopped?: Said<PayloadOf<'stopped'>>
  readonly signed?: Said<PayloadOf<'signed'>>
  readonly certificate?: Said<PayloadOf<'certificate-issued'>>
  /** Events corrected or withdrawn, with the correction that did it last. */
  readonly corrections: Readonly<Record<string, Said<PayloadOf<'correction'>>>>
  /** A correction was made after the newest certificate. */
  readonly correctedSinceCertificate: boolean
  readonly kinds: Readonly<Record<string, VisitEvent['kind']>>
  readonly count: number
}

export const emptyVisit: VisitState = {
  runs: {},
  earlierAsLeft: [],
  repairs: [],
  notes: [],
  done: [],
  skipped: [],
  valves: {},
  hoses: {},
  handsSinceStep: [],
  guideValues: [],
  guideSteps: [],
  corrections: {},
  correctedSinceCertificate: false,
  kinds: {},
  count: 0,
}

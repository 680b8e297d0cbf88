import type { Opening } from '../../apparatus'
import type { Pins } from '../../library'
import type { AnyQuantity } from '../../quantity'
import type { Id } from '../../schema'
import type { ClockDoubt } from './clock'
import type { PayloadOf } from './events'
import type { Said } from './said'
import type { RunName } from './words'
import type { Station } from './stations'

export interface RunState {
  readonly started: Said<PayloadOf<'test-started'>>
  /** Legal date of the test where it was made. */
  readonly date: string
  readonly stepsDone: readonly string[]
  readonly readings: readonly Said<PayloadOf<'reading'>>[]
  readonly answers: readonly Said<PayloadOf<'answer'>>[]
  /** Items in the order in which the entries that stand were recorded. */
  readonly order: readonly string[]
  readonly finished: boolean
}

/** A step of the guide on record. `at` is its station, `when` the time of the device. */
export type GuideStepDone = Omit<Said<PayloadOf<'guide-step'>>, 'at'> & {
  readonly at: Station
  readonly when: string
}

/** A valve turned, a hose moved, something put on the equipment. */
export type HandMove =
  Pick<PayloadOf<'valve-moved'>, 'element' | 'to'> | PayloadOf<'hose-moved'> | PayloadOf<'applied'>

export interface VisitState {
  readonly plan?: Said<PayloadOf<'planned'>>
  /** What was pinned for the visit, the latest last. */
  readonly pins: readonly Pins[]
  /** When the server wrote the plan. */
  readonly plannedAt?: string
  /** Entries whose device time is doubtful, in order: where a clock is wrong that is nearly every entry. */
  readonly clockDoubts: readonly { readonly of: Id<'event'>; readonly doubt: ClockDoubt }[]
  /** Corrections that somebody asks the tester for, and that are not made yet. */
  readonly asked: readonly Said<PayloadOf<'correction-asked'>>[]
  /** Certificates of this visit that were declared void, by their number. */
  readonly voided: Readonly<Record<string, Said<PayloadOf<'certificate-voided'>>>>
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
  readonly hoses: Readonly<Record<string, string>>
  /** What stands on the equipment of each source, as the signal of a calibrator. */
  readonly applied: Readonly<Record<string, AnyQuantity>>
  /** Turns of adjusters, in order. */
  readonly adjusted: readonly Said<PayloadOf<'adjusted'>>[]
  /** What hands did since the last finished step, so that a step is taken up where it was left. */
  readonly handsSinceStep: readonly HandMove[]
  readonly guide?: Said<PayloadOf<'guide-chosen'>>
  readonly guideValues: readonly Said<PayloadOf<'guide-value'>>[]
  readonly guideSteps: readonly GuideStepDone[]
  readonly guideRounds: readonly Said<PayloadOf<'guide-round'>>[]
  readonly guideTimers: readonly Said<PayloadOf<'guide-timer'>>[]
  /** Zones read at zero, as long as nothing that was shut has been opened since. */
  readonly proofs: readonly Said<PayloadOf<'zone-proved'>>[]
  /** Locks that are on, by what they hold. */
  readonly locks: Readonly<Record<string, Said<PayloadOf<'lock'>>>>
  readonly prepared: Readonly<Record<string, Said<PayloadOf<'prepared'>>>>
  readonly kit?: Said<PayloadOf<'kit-taken'>>
  /** Kits of sub-jobs, by job. */
  readonly jobKits: Readonly<Record<string, Said<PayloadOf<'kit-taken'>>>>
  readonly kitClosed?: Said<PayloadOf<'kit-closed'>>
  /** The function check of equipment without a field test. */
  readonly checks: Readonly<Partial<Record<RunName, Said<PayloadOf<'checked'>>>>>
  /** Legal dates of those checks. */
  readonly checkedOn: Readonly<Partial<Record<RunName, string>>>
  readonly photos: readonly Said<PayloadOf<'photo'>>[]
  readonly results: readonly Said<PayloadOf<'result'>>[]
  readonly stopped?: Said<PayloadOf<'stopped'>>
  readonly signed?: Said<PayloadOf<'signed'>>
  readonly certificate?: Said<PayloadOf<'certificate-issued'>>
  /** The technician asked the office to plan it otherwise. */
  readonly replanAsked?: Said<PayloadOf<'replan-asked'>> | undefined
  /** Events corrected or withdrawn, with the correction that did it last. */
  readonly corrections: Readonly<Record<string, Said<PayloadOf<'correction'>>>>
  /** A correction was made after the newest certificate. */
  readonly correctedSinceCertificate: boolean
  /** Somebody has written something besides the plan. */
  readonly begun: boolean
  readonly count: number
}

export const emptyVisit: VisitState = {
  pins: [],
  clockDoubts: [],
  asked: [],
  voided: {},
  runs: {},
  earlierAsLeft: [],
  repairs: [],
  notes: [],
  done: [],
  skipped: [],
  valves: {},
  hoses: {},
  applied: {},
  adjusted: [],
  handsSinceStep: [],
  guideValues: [],
  guideSteps: [],
  guideRounds: [],
  guideTimers: [],
  proofs: [],
  locks: {},
  jobKits: {},
  prepared: {},
  checks: {},
  checkedOn: {},
  photos: [],
  results: [],
  corrections: {},
  correctedSinceCertificate: false,
  begun: false,
  count: 0,
}

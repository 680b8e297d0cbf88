import type { Opening } from '../../apparatus'
import type { Pins } from '../../library'
import type { AnyQuantity } from '../../quantity'
import type { Id } from '../../schema'
import type { ClockDoubt } from './clock'
import type { PayloadOf } from './events'
import type { Recorded } from './recorded'
import type { RunName } from './words'
import type { Station } from './stations'

/** A reading on record, with its legal date: instrument and license must be valid on that day. */
export type RunReading = Recorded<PayloadOf<'reading'>> & { readonly date: string }

export interface RunState {
  readonly started: Recorded<PayloadOf<'test-started'>>
  /** Legal date of the test where it was made. */
  readonly date: string
  readonly stepsDone: readonly string[]
  readonly readings: readonly RunReading[]
  readonly answers: readonly Recorded<PayloadOf<'answer'>>[]
  /** Items in the order in which the entries that stand were recorded. */
  readonly order: readonly string[]
  readonly finished: boolean
}

/** A step of the guide on record; `at` is its station. */
export type GuideStepDone = Recorded<PayloadOf<'guide-step'>>

/** A test that does not decide the visit: tested again after a reopening, or started a second time in an older log. */
export interface EarlierRun extends RunState {
  readonly name: RunName
  /** Why it was tested again; absent where a log does not say it. */
  readonly reason?: string
  /** ISO times of the repair and of the turn of an adjuster that came before it, where there was one. */
  readonly repairedAt?: string
  readonly adjustedAt?: string
}

/** A function check that does not decide the visit, with its legal date. */
export interface EarlierCheck extends Recorded<PayloadOf<'checked'>> {
  readonly date: string
  readonly reason?: string
}

/** A valve turned, a hose moved, something put on the equipment. */
export type HandMove =
  Pick<PayloadOf<'valve-moved'>, 'element' | 'to'> | PayloadOf<'hose-moved'> | PayloadOf<'applied'>

/** What an entry should have said, or that it counts no longer. */
export type StandingCorrection = Recorded<PayloadOf<'correction'>> & {
  /** It was taken back at once by its own person. */
  readonly undone?: true
}

export interface VisitState {
  readonly plan?: Recorded<PayloadOf<'planned'>>
  /** What was pinned for the visit, the latest last. */
  readonly pins: readonly Pins[]
  /** When the server wrote the plan. */
  readonly plannedAt?: string
  /** Entries whose device time is doubtful, in order: where a clock is wrong that is nearly every entry. */
  readonly clockDoubts: readonly { readonly of: Id<'event'>; readonly doubt: ClockDoubt }[]
  /** Who wrote with a clock more than half a day off, and has not written with a right one since. */
  readonly clockFarOff: Id<'person'> | null
  /** Who answers for times that prove nothing, and how many of the doubts were there then. */
  readonly attested: Readonly<
    Partial<
      Record<
        PayloadOf<'times-attested'>['what'],
        Recorded<PayloadOf<'times-attested'>> & { readonly covers: number }
      >
    >
  >
  /** Corrections that somebody asks the tester for, and that are not made yet. */
  readonly asked: readonly Recorded<PayloadOf<'correction-asked'>>[]
  /** Certificates of this visit that were declared void, by their number. */
  readonly voided: Readonly<Record<string, Recorded<PayloadOf<'certificate-voided'>>>>
  readonly identity?: Recorded<PayloadOf<'identity'>>
  readonly asFoundImpossible?: Recorded<PayloadOf<'as-found-impossible'>>
  readonly runs: Readonly<Partial<Record<RunName, RunState>>>
  /** Tests that others came after, in order. They decide nothing, and stay on the record. */
  readonly earlierRuns: readonly EarlierRun[]
  readonly earlierChecks: readonly EarlierCheck[]
  /**
   * Entries whose place a later one took (an identity, a kit, a step that was done again, a proof that lapsed),
   * so that nothing on record leaves the state.
   */
  readonly replaced: readonly Recorded<object>[]
  readonly repairs: readonly Recorded<PayloadOf<'repair'>>[]
  readonly notes: readonly Recorded<PayloadOf<'note'>>[]
  readonly done: readonly Station[]
  readonly skipped: readonly Station[]
  /** Last commanded position of each valve and cock. */
  readonly valves: Readonly<Record<string, Opening>>
  /** The cock that each hose of the test kit is fitted to. */
  readonly hoses: Readonly<Record<string, string>>
  /** What stands on the equipment of each source, as the signal of a calibrator. */
  readonly applied: Readonly<Record<string, AnyQuantity>>
  /** Turns of adjusters, in order. */
  readonly adjusted: readonly Recorded<PayloadOf<'adjusted'>>[]
  /** What hands did since the last finished step, so that a step is taken up where it was left. */
  readonly handsSinceStep: readonly HandMove[]
  readonly guide?: Recorded<PayloadOf<'guide-chosen'>>
  readonly guideValues: readonly Recorded<PayloadOf<'guide-value'>>[]
  readonly guideSteps: readonly GuideStepDone[]
  readonly guideRounds: readonly Recorded<PayloadOf<'guide-round'>>[]
  readonly guideTimers: readonly Recorded<PayloadOf<'guide-timer'>>[]
  /** Zones read at zero, as long as nothing that was shut has been opened since. */
  readonly proofs: readonly Recorded<PayloadOf<'zone-proved'>>[]
  /** Locks that are on, by what they hold. */
  readonly locks: Readonly<Record<string, Recorded<PayloadOf<'lock'>>>>
  readonly prepared: Readonly<Record<string, Recorded<PayloadOf<'prepared'>>>>
  readonly kit?: Recorded<PayloadOf<'kit-taken'>>
  /** Kits of sub-jobs, by job. */
  readonly jobKits: Readonly<Record<string, Recorded<PayloadOf<'kit-taken'>>>>
  readonly kitClosed?: Recorded<PayloadOf<'kit-closed'>>
  /** The function check of equipment without a field test. */
  readonly checks: Readonly<Partial<Record<RunName, Recorded<PayloadOf<'checked'>>>>>
  /** Legal dates of those checks. */
  readonly checkedOn: Readonly<Partial<Record<RunName, string>>>
  readonly photos: readonly Recorded<PayloadOf<'photo'>>[]
  readonly results: readonly Recorded<PayloadOf<'result'>>[]
  readonly stopped?: Recorded<PayloadOf<'stopped'>>
  readonly signed?: Recorded<PayloadOf<'signed'>>
  readonly certificate?: Recorded<PayloadOf<'certificate-issued'>>
  /** The technician asked the office to plan it otherwise. */
  readonly replanAsked?: Recorded<PayloadOf<'replan-asked'>> | undefined
  /** Events corrected or withdrawn, with the correction that did it last. */
  readonly corrections: Readonly<Record<string, StandingCorrection>>
  /** A correction was made after the newest certificate. */
  readonly correctedSinceCertificate: boolean
  /** Somebody has written something besides the plan. */
  readonly begun: boolean
  readonly count: number
}

export const emptyVisit: VisitState = {
  pins: [],
  clockDoubts: [],
  clockFarOff: null,
  attested: {},
  asked: [],
  voided: {},
  runs: {},
  earlierRuns: [],
  earlierChecks: [],
  replaced: [],
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

import type { Requirement } from './basis/fields'
import type { AnyQuantity, Dimension } from '../quantity'
import type { DecisionRule } from './decision'
import type { Reason, ReasonCode, ReasonParams } from './reason'
import type { Outcome } from './outcome'
import type { GaugeAccuracy } from './uncertainty'

/** What one channel of an instrument shows, and how well. */
export interface Channel extends GaugeAccuracy {
  readonly id: string
  readonly dimension: Dimension
  /** Where its range begins, in `unit`; zero when absent. */
  readonly from?: number
}

export interface Reading {
  readonly item: string
  readonly dimension: Dimension
  /** As displayed. */
  readonly value: string
  readonly unit: string
  /** Channel of an instrument that it was taken with, where more than one shows such a quantity. */
  readonly channel?: string
  /** ISO time on the device. */
  readonly takenAt?: string
  /** Height of the gauge above the port, m, for a hose open to air. */
  readonly gaugeAbovePortM?: number
  /** Standard deviation of a streamed plateau, in `unit`. */
  readonly deviation?: number | undefined
  /** How fast the needle still moved, in `unit` a minute, negative when it fell. */
  readonly driftPerMinute?: number | undefined
  /** How widely the needle swung about its movement, from trough to crest, in `unit`. */
  readonly swing?: number | undefined
  /** How long it was held before, s, as the tester says. It never outweighs the times of the entries. */
  readonly heldS?: number | undefined
  /** How long its own trace shows it held, s: the gauge’s clock, which nobody’s word stands against. */
  readonly tracedS?: number | undefined
  /** How fast it moved at its end, worked out from its trace. */
  readonly trend?: Trend | undefined
  /** Why this reading proves nothing, as an instrument out of calibration when it was taken. */
  readonly refusal?: Reason | undefined
}

/** A movement in the unit of its reading a minute, negative when it fell, with its standard uncertainty. */
export interface Trend {
  readonly perMinute: number
  readonly standard: number
}

export interface Answer {
  readonly item: string
  readonly answer: string
  readonly label: string
  /** ISO time on the device. */
  readonly takenAt?: string
}

export interface TestRun {
  /** The last reading of an item stands, and so does the last answer. */
  readonly readings: readonly Reading[]
  readonly answers: readonly Answer[]
  /** Items in the order in which the readings and answers that stand were recorded. */
  readonly order: readonly string[]
  /** What the instruments of the run show. */
  readonly channels?: readonly Channel[]
  /** Nominal values of the equipment by name, as its set point. */
  readonly nominals?: Readonly<Record<string, AnyQuantity>>
  /** Pressure in the line, noted before the test: no reading can be above it. */
  readonly linePressure?: AnyQuantity
  /** ISO time of the repair, which as-left readings must follow. */
  readonly notBefore?: string
  /** ISO time at which something was set anew: readings from before it say nothing of it. */
  readonly adjustedAt?: string
}

/** A value that a limit is a percentage of, as the equipment’s page or the reading has it. */
export interface LimitBase {
  readonly name: string
  readonly value: string
  readonly unit: string
  readonly below?: number
  readonly above?: number
}

export interface ItemJudgement {
  readonly id: string
  readonly title: string
  readonly requirement: Requirement
  /** The answers that are wanted, in words, where something is seen and not measured. */
  readonly wanted?: string
  readonly outcome: Outcome
  /** One sentence a technician can act on. */
  readonly reason: string
  /** Which reason that is, and what it is about; absent on certificates from before reasons had codes. */
  readonly code?: ReasonCode
  readonly params?: ReasonParams
  readonly answer?: string
  readonly dimension?: Dimension
  readonly reading?: string
  /** The reading with its head correction. */
  readonly corrected?: string
  readonly unit?: string
  readonly limit?: string
  readonly limitSense?: 'at least' | 'at most'
  readonly margin?: string
  /** Both ends of what is accepted, where it has two; `limit` is the nearer one. */
  readonly limits?: { readonly low: string; readonly high: string }
  /** The value that its limits are percentages of. */
  readonly base?: LimitBase
  /** It was counted: one event more or less is no uncertainty of an instrument, so the limit is held as printed. */
  readonly counted?: boolean
  /** How long it was held for this, s. */
  readonly heldS?: number
  /** Reading, limit and margin are changes in a minute. */
  readonly perMinute?: boolean
  readonly simple?: Outcome
  readonly guarded?: Outcome
  readonly expanded?: string
  readonly falseAccept?: number
  /** Limit ÷ expanded uncertainty. */
  readonly tur?: number
  /** The ratio is under what the pack asks for. */
  readonly questioned?: boolean
}

export interface Judgement {
  readonly outcome: Outcome
  readonly reason: string
  /** How many advisory items failed beside a test that passed; absent on certificates from before it was counted. */
  readonly advisoriesOut?: number
  readonly decisionRule: DecisionRule
  readonly rulePack: { readonly id: string; readonly version: number; readonly title: string }
  readonly items: readonly ItemJudgement[]
}

import type { Requirement } from './basis/fields'
import type { AnyQuantity, Dimension } from '../quantity'
import type { DecisionRule } from './decision'
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
  /** How long it was held before, s, where the times of the entries do not say it. */
  readonly heldS?: number | undefined
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
  /** Why no reading of this gauge counts, as: out of calibration on the day. */
  readonly gaugeRefusal?: string
  /** ISO time of the repair, which as-left readings must follow. */
  readonly notBefore?: string
  /** ISO time at which something was set anew: readings from before it say nothing of it. */
  readonly adjustedAt?: string
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
  readonly answer?: string
  readonly dimension?: Dimension
  readonly reading?: string
  /** The reading with its head correction. */
  readonly corrected?: string
  readonly unit?: string
  readonly limit?: string
  readonly limitSense?: 'at least' | 'at most'
  readonly margin?: string
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
  readonly decisionRule: DecisionRule
  readonly rulePack: { readonly id: string; readonly version: number; readonly title: string }
  readonly items: readonly ItemJudgement[]
}

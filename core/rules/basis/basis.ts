import type * as yup from 'yup'
import type { AnyQuantity } from '../../quantity'
import type { Measured } from '../measure'
import type { Missing } from '../reason'
import type { LimitBase, TestRun } from '../types'

export type { Missing } from '../reason'

/** The ends between which a value is accepted, in the unit in which it was measured. */
export interface Ends {
  readonly low?: number
  readonly high?: number
  /** Digits in which the ends are printed. */
  readonly digits: number
  /** What the ends are percentages of, and which. */
  readonly about?: LimitBase
}

/** How the uncertainty of what a basis judges is obtained, which guarded acceptance rests on. */
export type UncertaintySource =
  /** That of its reading or readings, from their instruments. */
  | 'readings'
  /** Of how a reading moves or swings, where an offset of the gauge cancels. */
  | 'movement'

/**
 * A way of judging an item of a rule pack: what the pack says for it, what is held against what, and
 * what else it rests on. Everything that knows this basis is in its one file.
 * @typeParam I the item as the pack says it
 */
export interface Basis<I> {
  readonly schema: yup.Schema<I>
  /** Whether the item is recorded itself by a step; else it is worked out from other items. */
  readonly recorded: boolean
  readonly uncertainty: UncertaintySource
  /** Items and nominal values that it is worked out from. */
  readonly restsOn: (item: I) => readonly string[]
  /** The quantity of its limits; undefined where it has none. */
  readonly limit: (item: I) => AnyQuantity | undefined
  readonly measure: (item: I, run: TestRun) => Measured | Missing
  readonly ends: (item: I, run: TestRun, unit: string) => Ends | Missing
}

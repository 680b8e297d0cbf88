import type { Outcome } from './outcome'
import { COVERAGE, normalBelow } from './uncertainty'

/** How a reading near its limit is decided: by the limit as printed, or with a guard band. */
export const decisionRules = ['simple', 'guarded'] as const
export type DecisionRule = (typeof decisionRules)[number]

export interface Decision {
  readonly outcome: Outcome
  /** Distance to the limit, positive on the good side, in the unit of the reading. */
  readonly margin: number
  /** Expanded uncertainty U = 2u, in the unit of the reading; absent when the gauge is unknown. */
  readonly expanded?: number
  /** Probability that the true value lies on the wrong side although it reads on the right one. */
  readonly falseAccept?: number
}

/** The limit as printed: a reading on it passes. */
export function simpleAcceptance(margin: number): Outcome {
  return margin >= -ROUNDING ? 'pass' : 'fail'
}

/** Limits and readings are decimals of a few digits: less than this apart they are the same. */
const ROUNDING = 1e-9

/**
 * Guarded acceptance: the limit moved by the expanded uncertainty on either side.
 * Source: JCGM 106:2012, 8.3, binary rule with guard band w = U on both sides.
 */
export function guardedAcceptance(margin: number, expanded: number): Outcome {
  if (margin >= expanded - ROUNDING) return 'pass'
  if (margin >= -ROUNDING) return 'pass-uncertain'
  return margin > -expanded ? 'fail-uncertain' : 'fail'
}

/**
 * Specific risk of accepting a value that is out of limits, with no prior knowledge of the item.
 * Source: JCGM 106:2012, 9.3.2. Zero when the reading is not accepted at all.
 */
export function falseAcceptProbability(margin: number, standard: number): number {
  if (margin < -ROUNDING) return 0
  return standard === 0 ? 0 : normalBelow(-margin / standard)
}

export function expandedOf(standard: number): number {
  return COVERAGE * standard
}

const ORDER: readonly Outcome[] = [
  'pass',
  'pass-uncertain',
  'not-assessed',
  'fail-uncertain',
  'fail',
]

/** The gravest of several outcomes; a failure outweighs what could not be assessed. */
export function gravest(outcomes: readonly Outcome[]): Outcome {
  return outcomes.reduce<Outcome>(
    (worst, o) => (ORDER.indexOf(o) > ORDER.indexOf(worst) ? o : worst),
    'pass',
  )
}

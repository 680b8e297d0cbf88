/** How one item or a whole test came out. */
export type Outcome = 'pass' | 'pass-uncertain' | 'fail-uncertain' | 'fail' | 'not-assessed'

/** Whether an outcome lets the equipment go on; nothing at all does not. */
export const passes = (outcome: string | null | undefined): boolean =>
  outcome === 'pass' || outcome === 'pass-uncertain'

/** Whether an outcome asks for a repair. */
export const fails = (outcome: string | null | undefined): boolean =>
  outcome === 'fail' || outcome === 'fail-uncertain'

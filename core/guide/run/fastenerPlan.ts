import { type BoltPlan, boltPlan } from '../../craft'
import type { GuideStep } from '../schema/step'

/** How fasteners stand: round a circle, or along the outline of a rectangle or an oblong. */
export type FastenerLayout = 'circle' | 'rectangle' | 'oblong'

/** Bolts that a drawing of a ring numbers first, since they come first, last, or stay in. */
const numbered = (many: number) => Array.from({ length: many }, (_, n) => n + 1)

/**
 * The order in which the fasteners of a step are turned. A pair that comes first or last is numbered
 * 1 and 2; in an oblong the first pair stands opposite, in the middle of the long sides. What stays
 * part-threaded until zero is proved is numbered from 1 on and is in no pass.
 * Null where they stand in no ring, or their number is not known.
 * @param count of the fasteners, from the spec sheet
 */
export function fastenerPlan(
  step: GuideStep,
  count: number,
  layout: FastenerLayout = 'circle',
): BoltPlan | null {
  if (!Number.isInteger(count) || count < 3 || count > 96 || step.pattern === 'none') return null
  if (step.loosen) {
    const held = Math.min(step.leavePart ?? 0, count - 1)
    const last = step.lastOnes && held === 0 ? numbered(2) : []
    return boltPlan({
      count,
      last,
      holdBack: numbered(held),
      start: last.length + held + 1,
      passes: [1],
    })
  }
  if (!step.tighten) return null
  const rising = step.to.torque !== undefined || step.to.ceiling !== undefined
  const pair = layout === 'oblong' && count % 2 === 0 ? [1, count / 2 + 1] : numbered(2)
  const first = step.pattern === 'pairs-first' ? pair : []
  return boltPlan({ count, first, ...(rising && !step.untilNoneMoves ? {} : { passes: [1] }) })
}

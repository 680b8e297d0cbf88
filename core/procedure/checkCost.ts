import { actionsOf } from './actions'
import type { Procedure } from './types'
import { toSi } from '../quantity'

/** What a check asks of technician and customer. */
export interface CheckCost {
  /** Whole minutes, one at least. */
  readonly minutes: number
  /** Whether the customer is without supply meanwhile. */
  readonly interrupts: boolean
}

/** To read and write down what a step asks for, s. */
const READ_S = 45

/**
 * Estimates what a check costs by its procedure: the hands’ moves and the hold of its step, and whether a shutoff
 * stands shut while it is made. Null where the procedure does not ask for the item.
 */
export function checkCost({ steps }: Procedure, item: string): CheckCost | null {
  const at = steps.findIndex((s) => s.record?.item === item)
  const step = steps[at]
  if (!step) return null
  const stands = new Map<string, string>()
  for (const { moves = [] } of steps.slice(0, at + 1))
    for (const { element, to } of moves) stands.set(element, to)
  const hands = actionsOf(step).reduce((sum, a) => sum + a.lastsS, 0)
  const hold = step.record?.hold ? toSi({ dimension: 'time', ...step.record.hold }) : 0
  return {
    minutes: Math.max(1, Math.round((READ_S + hands + hold) / 60)),
    interrupts: [...stands].some(([element, to]) => /shutoff/.test(element) && to === 'shut'),
  }
}

import { conditionsOf } from '../schema/stepCommon'
import type { Guide } from '../schema/guide'
import type { PlacedStep, PlacedVerb } from '../schema/step'
import type { Say } from './rule'
import type { ProofState } from './state'

/** Verbs that change how the equipment stands. */
const TOUCHES: ReadonlySet<PlacedVerb> = new Set([
  'isolate',
  'vent',
  'air',
  'power',
  'relieve',
  'loosen',
  'remove',
] as const)

/**
 * Reports what is missing before the first work on the equipment: cautions acknowledged, users informed, kit counted,
 * and permission where the work changes the equipment permanently.
 */
export function outsetFaults(guide: Guide, step: PlacedStep, state: ProofState, say: Say): void {
  if (step.gate) state.gates.add(step.gate)
  if (step.count === 'kit') state.counted = true
  if (state.touched || !TOUCHES.has(step.verb)) return
  state.touched = true
  const has = (gate: string) => state.gates.has(gate)
  if (!has('acknowledge'))
    say('unacknowledged', 'nobody has read the cautions yet: put the gate “acknowledge” before it')
  if (!has('told'))
    say('untold', 'nobody who depends on the equipment knows yet: put the gate “told” before it')
  if (state.permitted && !has('permission'))
    say('unpermitted', 'this changes what the owner relies on: put the gate “permission” before it')
  if (state.service === 'gas' && !has('hazard'))
    say('unwarned', 'gas burns and explodes: put the gate “hazard” before it')
  if (guide.kit?.length && !state.counted && conditionsOf(step).length === 0)
    say('uncounted', 'the kit was not counted: put “count: kit” before it')
}

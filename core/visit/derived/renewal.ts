import { type Advice, mendedBy, type PlacedStep, renewalAdvice } from '../../guide'
import { type Library, type RenewalRule, renewalRule } from '../../library'
import type { VisitState } from '../log/state'
import { guideOfVisit } from './guide'
import { policyOfVisit } from './pinned'

/** The house’s rule about the part that an inspection looks at, by the policy that is pinned in the visit. */
export function renewalRuleAt(
  state: VisitState,
  library: Library,
  { inspect }: Pick<PlacedStep, 'inspect'>,
): RenewalRule {
  const policy = policyOfVisit(state, library)
  const guide = guideOfVisit(state, library)?.guide
  return guide && inspect
    ? renewalRule(library, policy, guide, inspect)
    : { policy: policy?.policy ?? 'inspect', soft: true }
}

/** What the house makes of what an inspection has seen: browser and server ask the same. */
export function renewalAdviceAt(
  state: VisitState,
  library: Library,
  step: PlacedStep,
  defects: readonly string[],
): Advice {
  const { policy, soft } = renewalRuleAt(state, library, step)
  const offered = step.verdicts?.map((v) => v.id) ?? []
  return renewalAdvice(policy, offered, defects, mendedBy(step), soft)
}

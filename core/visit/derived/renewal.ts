import { type Advice, mendedBy, type PlacedStep, renewalAdvice } from '../../guide'
import { type Library, type RenewalRule, renewalRule } from '../../library'
import type { VisitState } from '../log/state'
import { guideOfVisit } from './guide'
import { policyOfVisit } from './pinned'

/** Finds the renewal rule for the inspected part, from the policy version that the visit was planned with. */
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

/** Advises a verdict for the defects found, from the utility’s policy. Browser and server use the same advice. */
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

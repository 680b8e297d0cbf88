import type { FamilyPolicy } from '../catalogue'
import { type Guide, type RenewalPolicy, standsFor } from '../guide'
import type { Library } from './library'

/** The utility’s rule for a part that is open: when to renew it, and why. */
export interface RenewalRule {
  readonly policy: RenewalPolicy
  /** Reason for the rule; absent where no policy is in force. */
  readonly why?: string
  /** Whether it is a soft part, which a policy may renew each time it is open. */
  readonly soft: boolean
}

/**
 * Finds the renewal rule for a part of a guide: the rule for its kind of part if the policy has one, otherwise the rule
 * for the family. If the guide names no machine, every part that an inspection can renew counts as soft.
 */
export function renewalRule(
  { machines }: Pick<Library, 'machines'>,
  policy: FamilyPolicy | undefined,
  guide: Pick<Guide, 'machine' | 'parts'>,
  id: string,
): RenewalRule {
  const machine = machines.find((m) => m.id === guide.machine)
  const part = guide.parts.find((p) => p.id === id)
  const own = part ? (machine?.parts.filter((p) => standsFor(part).includes(p.id)) ?? []) : []
  const rule = policy?.classes?.find((c) => own.some((p) => c.kinds.includes(p.kind))) ?? policy
  return {
    policy: rule?.policy ?? 'inspect',
    ...(rule ? { why: rule.why } : {}),
    soft: !machine || !part || own.some((p) => p.soft),
  }
}

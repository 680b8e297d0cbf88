import type { FamilyPolicy } from '../catalogue'
import { type Guide, type RenewalPolicy, standsFor } from '../guide'
import type { Library } from './library'

/** What the house does about a part that is open, and why. */
export interface RenewalRule {
  readonly policy: RenewalPolicy
  /** Why the house has it so; absent where no policy was put in force. */
  readonly why?: string
  /** Whether it is one of the parts that a house may renew whenever they are open. */
  readonly soft: boolean
}

/**
 * The rule of renewal for a part of a guide: that of its kind where the house’s policy for the family has one, else
 * that of the family. Where the guide names no machine, everything that its inspections can renew is taken for soft.
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

import type { GuideStep } from '../schema/step'
import type { InspectionVerdict } from '../schema/verbs'

/** The schools of renewing soft parts. Which one is in force is data, by family. */
export const renewalPolicies = {
  'renew-all': 'Renew every soft part whenever it is open',
  inspect: 'Inspect, and renew what is worn',
  'clean-if-fouled': 'Clean what is only fouled, renew what is damaged',
} as const
export type RenewalPolicy = keyof typeof renewalPolicies

/** Defects that a rag takes away; every other one is damage. */
const FOULING: readonly string[] = [
  'debris',
  'dirt',
  'grit',
  'scale',
  'fouled',
  'old grease',
  'blocked',
  'dust',
  'clogged',
  'dry',
]

export const isFouling = (defect: string): boolean => FOULING.includes(defect)

export interface Advice {
  readonly verdict: InspectionVerdict
  readonly why: string
}

/** Worst first: what damage asks for, as far as the inspection offers it. */
const FOR_DAMAGE: readonly InspectionVerdict[] = [
  'renew',
  'renew-assembly',
  'renew-body',
  'order',
  'stop',
]
const FOR_FOULING: readonly InspectionVerdict[] = ['clean', 'keep']
const FOR_SOUND: readonly InspectionVerdict[] = ['keep', 'clean']

/** Defects that a step’s verdicts put right without a new part. */
export const mendedBy = (step: Pick<GuideStep, 'verdicts'>): string[] =>
  step.verdicts?.flatMap((v) => v.mends ?? []) ?? []

/**
 * What the house’s policy makes of an inspection: damage is renewed in every school, a sound part
 * only where every soft part is renewed whenever it is open.
 * @param offered verdicts that the inspection offers
 * @param mended defects that this inspection puts right without a new part
 * @param soft whether it is a soft part, on which a house that renews them all acts
 */
export function renewalAdvice(
  policy: RenewalPolicy,
  offered: readonly InspectionVerdict[],
  defects: readonly string[],
  mended: readonly string[] = [],
  soft = true,
): Advice {
  const first = (order: readonly InspectionVerdict[]) => order.find((v) => offered.includes(v))
  const fallback = offered[0] as InspectionVerdict
  if (offered.length === 1) return { verdict: fallback, why: 'It goes in once.' }
  const damage = defects.filter((d) => !isFouling(d) && !mended.includes(d))
  if (damage.length > 0) {
    return { verdict: first(FOR_DAMAGE) ?? fallback, why: `Damaged: ${damage.join(', ')}.` }
  }
  if (policy === 'renew-all' && soft && offered.includes('renew')) {
    return { verdict: 'renew', why: 'The house renews every soft part whenever it is open.' }
  }
  if (defects.length > 0) {
    const only = defects.some((d) => mended.includes(d)) ? 'To be put right' : 'Only fouled'
    return { verdict: first(FOR_FOULING) ?? fallback, why: `${only}: ${defects.join(', ')}.` }
  }
  return { verdict: first(FOR_SOUND) ?? fallback, why: 'No defect named.' }
}

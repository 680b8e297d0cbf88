import type { Machine } from '../../machine'
import { standsFor } from '../schema/equipment'
import type { Guide } from '../schema/guide'
import type { PlacedStep } from '../schema/step'
import { atHand } from './atHand'

export type PracticePoint = NonNullable<Machine['differ']>[number]

/** The school in force for a point, the alternatives, and the reason where the utility departs from the sheet. */
export interface InForce {
  readonly holds: string
  readonly others?: string | undefined
  readonly why?: string
}

/**
 * Says which way is in force: the machine sheet’s, or that of the others where the office chose it for the family.
 * @param otherwise the points that the office decided otherwise, each with its reason
 */
export function inForceAt(
  { point, house, others }: PracticePoint,
  otherwise: readonly { readonly point: string; readonly why: string }[] = [],
): InForce {
  const chosen = others ? otherwise.find((o) => o.point === point) : undefined
  return chosen && others
    ? { holds: others, others: house, why: chosen.why }
    : { holds: house, others }
}

/** The points in which practitioners differ about what a step does with what it has in hand. */
export function practiceAt(machine: Machine, guide: Guide, step: PlacedStep): PracticePoint[] {
  const hands = new Set(inHand(guide, step))
  return (machine.differ ?? []).filter(
    ({ at, doing }) => doing?.includes(step.verb) && at?.some((name) => hands.has(name)),
  )
}

/** The points that belong to no step: they are settled before the work begins. */
export const practiceAtLarge = ({ differ = [] }: Machine): PracticePoint[] =>
  differ.filter((d) => !d.at)

/** What a step has in hand, what its fasteners hold, and the setting that it turns. */
function inHand(guide: Guide, step: PlacedStep): string[] {
  const { loosen, tighten, set, restore, steps = [] } = step
  const held = (guide.fasteners ?? [])
    .filter((f) => f.id === loosen || f.id === tighten)
    .flatMap((f) => guide.parts.filter((p) => p.id === f.holds).flatMap(standsFor))
  return [
    ...atHand(guide, step),
    ...held,
    ...[set, restore].flatMap((name) => name ?? []),
    ...steps.flatMap((s) => inHand(guide, s)),
  ]
}

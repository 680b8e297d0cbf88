import type { Guide } from '../schema/guide'
import { standsFor } from '../schema/equipment'
import type { PlacedStep } from '../schema/step'

/** The parts of the machine that a step has in hand; none for one that turns a valve or waits. */
export function atHand(guide: Guide, step: PlacedStep): string[] {
  const { remove, fit, renew, inspect, clean, lubricate, discard, treat, loosen, tighten } = step
  const { mark, match } = step
  const names = [remove, fit, renew, inspect, clean, lubricate, discard, treat, mark, match]
  const parts = guide.parts.filter((p) => names.includes(p.id)).flatMap(standsFor)
  // Fasteners of the machine bear the names that the guide gives them.
  return [...new Set([...parts, ...[loosen, tighten].flatMap((f) => f ?? [])])]
}

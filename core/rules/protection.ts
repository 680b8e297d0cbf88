import type { AnyQuantity } from '../quantity'
import { bases } from './basis'
import type { RulePack } from './pack'

/**
 * How far the pressure of a protected system may rise when its regulator fails, by the tiers of a rule
 * pack (49 CFR 192.201 (a) (2) in its United States ones).
 * @param maop its maximum allowable operating pressure
 * @param yieldLimit pressure that stresses the pipe to 75 % of its yield strength, where it is known
 * @returns in the unit of `maop`; null when the pack has no such limit, or none for this pressure
 */
export function protectionLimit(
  pack: RulePack,
  maop: AnyQuantity,
  yieldLimit?: AnyQuantity,
): number | null {
  const item = pack.tests.flatMap((t) => t.items).find((i) => i.basis === 'tiers')
  if (item?.basis !== 'tiers') return null
  const nominals = { [item.of]: maop, ...(yieldLimit ? { 'yield-limit': yieldLimit } : {}) }
  const run = { readings: [], answers: [], order: [], nominals }
  const ends = bases.tiers.ends(item, run, maop.unit)
  return 'missing' in ends ? null : (ends.high ?? null)
}

import { type AnyQuantity, convertValue, displayedDigits, parseDisplayed } from '../../quantity'
import { usualDigits } from '../plausible'
import type { Ends } from './basis'

/** A limit in the unit in which a value was shown. */
export const inUnit = (limit: AnyQuantity, unit: string): number =>
  convertValue(limit.dimension, parseDisplayed(limit.value), limit.unit, unit)

/** A limit keeps its printed digits in its own unit and takes those usual elsewhere. */
export const digitsIn = (limit: AnyQuantity, unit: string): number =>
  limit.unit === unit ? displayedDigits(limit.value) : usualDigits(limit.dimension, unit)

/** One end as the pack gives it. */
export function oneEnd(
  { atLeast, atMost }: { atLeast?: AnyQuantity | undefined; atMost?: AnyQuantity | undefined },
  unit: string,
): Ends {
  if (atLeast) return { low: inUnit(atLeast, unit), digits: digitsIn(atLeast, unit) }
  if (atMost) return { high: inUnit(atMost, unit), digits: digitsIn(atMost, unit) }
  return { digits: 0 }
}

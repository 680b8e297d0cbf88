import { CannotCompute } from '../errors'
/** Difference of the two projections, as part of the longer one, up to which they count as equal. */
const EQUAL_WITHIN = 0.1

export interface Throws {
  /** How far the shaft stands out at each end of its throw, in one unit. */
  readonly one: number
  readonly other: number
}

export interface ThrowVerdict {
  readonly equal: boolean
  readonly difference: number
  /** What the difference says. */
  readonly says: string
}

/**
 * Symmetry of a double-acting shuttle: its disc is not central, so clearly unequal throws mean that
 * the shaft is in backwards.
 * @throws CannotCompute when a projection is none
 */
export function throwSymmetry({ one, other }: Throws): ThrowVerdict {
  for (const projection of [one, other]) {
    if (!Number.isFinite(projection) || projection < 0) {
      throw new CannotCompute(
        'throw-negative',
        'A projection is a length from 0 up.',
        'Measure it again.',
      )
    }
  }
  if (one === 0 && other === 0) {
    throw new CannotCompute(
      'throw-none',
      'Nothing stands out at either end.',
      'Throw it both ways, then measure.',
    )
  }
  const difference = Math.abs(one - other)
  // Lengths are decimals of a few digits: a tenth of 31 mm is 3.1 mm, whatever the floats say.
  const equal = difference <= EQUAL_WITHIN * Math.max(one, other) * (1 + 1e-9)
  return {
    equal,
    difference,
    says: equal
      ? 'The two throws are equal.'
      : 'The two throws are clearly unequal: the shaft is in backwards. Take it out and turn it round.',
  }
}

import { CannotCompute } from '../errors'

/** Leakage classes of IEC 60534-4 that allow a part of the rated capacity. */
const PART_OF_RATED = { II: 0.005, III: 0.001, IV: 0.0001 } as const
/** Class VI: mL/min and bubbles/min of air by port diameter in inches (IEC 60534-4). */
const CLASS_VI: readonly (readonly [number, number, number])[] = [
  [1, 0.15, 1],
  [1.5, 0.3, 2],
  [2, 0.45, 3],
  [2.5, 0.6, 4],
  [3, 0.9, 6],
  [4, 1.7, 11],
  [6, 4, 27],
  [8, 6.75, 45],
]
/** Class V: mL/min of water per inch of port and psi of drop. */
const CLASS_V = 5e-4

export type LeakageClass = keyof typeof PART_OF_RATED | 'V' | 'VI'
export const leakageClasses: readonly LeakageClass[] = ['II', 'III', 'IV', 'V', 'VI']

export interface SeatAsked {
  readonly leakageClass: LeakageClass
  /** Flow fully open under the pressures of the test, mL/min: classes II to IV. */
  readonly ratedMlMin?: number | undefined
  /** in: classes V and VI. */
  readonly portIn?: number | undefined
  /** psi: class V. */
  readonly dropPsi?: number | undefined
}

export interface SeatAllowance {
  /** mL/min of the medium that the class is tested with. */
  readonly mlMin: number
  readonly bubblesMin?: number
  readonly medium: 'as rated' | 'water' | 'air'
}

/**
 * How much a seat of a class may leak (IEC 60534-4). A port between two of the table is given the
 * smaller one’s allowance.
 * @throws CannotCompute naming what the class needs
 */
export function seatAllowance({
  leakageClass,
  ratedMlMin,
  portIn,
  dropPsi,
}: SeatAsked): SeatAllowance {
  const missing = (what: string) =>
    new CannotCompute(
      'class-needs',
      `Class ${leakageClass} is reckoned from ${what}.`,
      `Give ${what}.`,
    )
  if (leakageClass === 'V') {
    if (!portIn || !dropPsi) throw missing('the port diameter and the drop')
    return { mlMin: CLASS_V * portIn * dropPsi, medium: 'water' }
  }
  if (leakageClass === 'VI') {
    if (!portIn) throw missing('the port diameter')
    const row = CLASS_VI.findLast(([inches]) => inches <= portIn)
    if (!row || portIn > 8)
      throw new CannotCompute(
        'port-outside-table',
        'Class VI has figures for ports of 1 to 8 in.',
        'Take the allowance from the maker’s sheet.',
      )
    return { mlMin: row[1], bubblesMin: row[2], medium: 'air' }
  }
  if (!ratedMlMin) throw missing('the rated flow')
  return { mlMin: PART_OF_RATED[leakageClass] * ratedMlMin, medium: 'as rated' }
}

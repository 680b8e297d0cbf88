import { CannotCompute } from '../errors'
import { convertValue, unitsOf, WATER_COLUMN_KPA_PER_M } from '../quantity'
import type { Reading } from './types'

/** How well a height can be judged with a rule on a hose: ± this many metres. */
const HEIGHT_HALF_WIDTH_M = 0.02

/**
 * What the column of water in a hose open to air adds to a reading. The gauge held above the port
 * reads low by the column, below it reads high (27.7 in of water per psi).
 *
 * @returns the amount to add to the reading and its ± half width, in the unit of the reading
 */
export function headCorrection(reading: Reading): { add: number; halfWidth: number } {
  if (reading.gaugeAbovePortM === undefined) return { add: 0, halfWidth: 0 }
  const perMetre = convertValue(
    'differential',
    WATER_COLUMN_KPA_PER_M,
    'kPa',
    pressureUnit(reading),
  )
  return { add: reading.gaugeAbovePortM * perMetre, halfWidth: HEIGHT_HALF_WIDTH_M * perMetre }
}

function pressureUnit(reading: Reading): string {
  if (!unitsOf('differential').some((u) => u === reading.unit)) {
    throw new CannotCompute(
      'head-unit',
      `A head correction belongs to a pressure, not to ${reading.unit}.`,
      'Take the reading in a unit of pressure.',
    )
  }
  return reading.unit
}

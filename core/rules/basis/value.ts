import { type AnyQuantity, convertValue, type Dimension, displayedDigits } from '../../quantity'
import { channelFor } from '../channel'
import { measure, standingReading } from '../measure'
import { because, type Reason } from '../reason'
import type { TestRun } from '../types'

/** A value of that name: of the equipment, else as it was read in this run. */
export const named = (run: TestRun, name: string): AnyQuantity | undefined =>
  run.nominals?.[name] ?? standingReading(run, name)

/** Says that a percentage is of something that nobody knows. */
export const unknownBase = (name: string): Reason =>
  because(
    'needs-nominal',
    `${name.replaceAll('-', ' ')} is not known, of which it is a percentage`,
    { name },
  )

/** A value in the unit that is asked for. */
export interface Value {
  readonly value: number
  readonly digits: number
  /** Standard uncertainty; zero for a nominal value, absent when the instrument is unknown. */
  readonly standard?: number
}

/** A nominal value of the equipment, which is exact, or a reading of this run; null when there is none of that quantity. */
export function valueIn(
  run: TestRun,
  name: string,
  dimension: Dimension,
  unit: string,
): Value | null {
  const at = (value: number, from: string) => convertValue(dimension, value, from, unit)
  const exact = run.nominals?.[name]
  if (exact) {
    if (exact.dimension !== dimension) return null
    const digits = displayedDigits(exact.value)
    return { value: at(Number(exact.value), exact.unit), digits, standard: 0 }
  }
  const reading = standingReading(run, name)
  if (reading?.dimension !== dimension) return null
  const { value, digits, standard } = measure(reading, channelFor(run, reading))
  return {
    value: at(value, reading.unit),
    digits,
    // A difference, so that a unit with another zero counts as well.
    ...(standard === undefined
      ? {}
      : { standard: at(standard, reading.unit) - at(0, reading.unit) }),
  }
}

/** Uncertainties of independent values together; undefined when one is unknown. */
export const together = (...standards: readonly (number | undefined)[]): number | undefined =>
  standards.includes(undefined) ? undefined : Math.hypot(...standards.map(Number))

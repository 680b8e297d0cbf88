import {
  convertValue,
  displayedDigits,
  formatQuantity,
  parseDisplayed,
  roundTo,
  toSi,
  type AnyQuantity,
  type Dimension,
  unitDefinition,
  unitLabel,
} from '../quantity'
import type { Channel } from './types'

/** What bounds a reading of a differential gauge: its range, and the pressure in the line. */
export interface Bounds {
  readonly channel?: Channel | undefined
  /** As noted before the test. */
  readonly linePressure?: AnyQuantity | undefined
}

/** Why a reading cannot be what the gauge showed. */
export interface Doubt {
  readonly why: string
  /** The same digits as they were probably meant. */
  readonly meant?: string
}

const PRESSURES: readonly Dimension[] = ['differential', 'gaugePressure']

/**
 * Whether a reading is impossible: outside the range of its gauge, below zero, or above the pressure
 * in the line. A reading on the end of the scale is taken as one.
 *
 * @param reading as displayed, before any correction
 * @returns the reason with what was probably meant, or null
 */
export function impossible(
  reading: Pick<AnyQuantity, 'dimension' | 'value' | 'unit'>,
  bounds: Bounds,
): Doubt | null {
  if (!PRESSURES.includes(reading.dimension)) return null
  const why = outside(reading, bounds)
  if (!why) return null
  const meant = candidates(reading.value).find((value) => !outside({ ...reading, value }, bounds))
  return { why, ...(meant ? { meant } : {}) }
}

function outside(reading: AnyQuantity, { channel, linePressure }: Bounds): string | null {
  const { dimension, unit } = reading
  const value = parseDisplayed(reading.value)
  const shown = formatQuantity(reading)
  const from = channel?.from ?? 0
  const at = (end: number) => (channel ? convertValue(dimension, end, channel.unit, unit) : 0)
  const end = (of: number) => `${of} ${unitLabel('gaugePressure', channel?.unit ?? unit)}`
  if (value < at(from)) {
    return from === 0
      ? `${shown} is below zero, where the gauge does not read`
      : `${shown} on a gauge that begins at ${end(from)}`
  }
  if (channel && value > at(from + channel.span) + ROUNDING) {
    return `${shown} on a gauge that ends at ${end(from + channel.span)}`
  }
  if (linePressure?.dimension === 'gaugePressure' && toSi(reading) > toSi(linePressure)) {
    return `${shown} is above the line pressure of ${formatQuantity(linePressure)}`
  }
  return null
}

const ROUNDING = 1e-9

/** The slips of a pen that give such a reading: a point left out or moved, a sign too many. */
function candidates(text: string): string[] {
  const value = Math.abs(parseDisplayed(text))
  const digits = displayedDigits(text)
  return [0, 1, 2].map((left) => roundTo(value / 10 ** left, digits + left))
}

/** The digits of a reading’s unit in which two values are seen to differ; at least `digits`. */
export function tellingDigits(a: number, b: number, digits: number): number {
  if (Math.abs(a - b) <= ROUNDING) return digits
  let enough = digits
  while (enough < digits + 6 && roundTo(a, enough) === roundTo(b, enough)) enough++
  return enough
}

/** Digits usual in a unit. */
export const usualDigits = (dimension: Dimension, unit: string): number =>
  unitDefinition(dimension, unit).digits

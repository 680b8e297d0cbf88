import {
  type AnyQuantity,
  convertValue,
  type Dimension,
  displayedDigits,
  formatQuantity,
  fromSi,
  parseDisplayed,
  quantityBounds,
  roundTo,
  toSi,
  unitDefinition,
  unitLabel,
} from '../quantity'
import { isPressure } from './channel'
import type { Channel } from './types'

/** What bounds a reading: the range of its instrument, and the pressure in the line. */
export interface Bounds {
  readonly channel?: Channel | undefined
  /** As noted before the test. */
  readonly linePressure?: AnyQuantity | undefined
}

/** Why a reading cannot be what the instrument showed. */
export interface Doubt {
  readonly why: string
  /** The same digits as they were probably meant. */
  readonly meant?: string
}

/**
 * Tells whether a reading is impossible: outside the range of its instrument, outside what its quantity can be at
 * all (a negative count, a stroke that takes no time), or above the pressure in the line. A reading on the end of
 * the scale is taken as one.
 *
 * @param reading as displayed, before any correction
 * @returns the reason with what was probably meant, or null
 */
export function impossible(
  reading: Pick<AnyQuantity, 'dimension' | 'value' | 'unit'>,
  bounds: Bounds,
): Doubt | null {
  const why = outside(reading, bounds)
  if (!why) return null
  const meant = candidates(reading.value).find((value) => !outside({ ...reading, value }, bounds))
  return { why, ...(meant ? { meant } : {}) }
}

function outside(reading: AnyQuantity, { channel, linePressure }: Bounds): string | null {
  return (
    outsideRange(reading, channel) ?? outsideQuantity(reading) ?? aboveLine(reading, linePressure)
  )
}

function outsideRange(reading: AnyQuantity, channel: Channel | undefined): string | null {
  const { dimension, unit } = reading
  const value = parseDisplayed(reading.value)
  // A pressure is read on some gauge, and none that is not named begins below zero.
  if (!channel && !isPressure(dimension)) return null
  const from = channel?.from ?? 0
  // The scale of a gauge is in psi, whether it is read as a pressure or as a difference.
  const labelled = isPressure(dimension) ? 'gaugePressure' : dimension
  const at = (end: number) => (channel ? convertValue(dimension, end, channel.unit, unit) : 0)
  const end = (of: number) => `${of} ${unitLabel(labelled, channel?.unit ?? unit)}`
  const shown = formatQuantity(reading)
  if (value < at(from)) {
    return from === 0
      ? `${shown} is below zero, where the gauge does not read`
      : `${shown} on a gauge that begins at ${end(from)}`
  }
  return channel && value > at(from + channel.span) + ROUNDING
    ? `${shown} on a gauge that ends at ${end(from + channel.span)}`
    : null
}

/** Why a value cannot be of its quantity at all, in words; null where it can. */
export function outsideQuantity(reading: AnyQuantity): string | null {
  const { dimension, unit } = reading
  const { least, most, aboveLeast } = quantityBounds[dimension]
  const si = toSi(reading)
  const end = (of: number) => {
    const { digits, label } = unitDefinition(dimension, unit)
    return `${roundTo(fromSi(dimension, of, unit), digits)} ${label}`
  }
  const shown = formatQuantity(reading)
  if (aboveLeast ? si <= least : si < least - ROUNDING)
    return `${shown} is ${aboveLeast ? 'not above' : 'below'} ${end(least)}`
  return si > most + ROUNDING ? `${shown} is above ${end(most)}` : null
}

function aboveLine(reading: AnyQuantity, line: AnyQuantity | undefined): string | null {
  if (!isPressure(reading.dimension) || line?.dimension !== 'gaugePressure') return null
  return toSi(reading) > toSi(line)
    ? `${formatQuantity(reading)} is above the line pressure of ${formatQuantity(line)}`
    : null
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

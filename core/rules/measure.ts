import {
  convertValue,
  type Dimension,
  displayedDigits,
  parseDisplayed,
  roundTo,
  unitDefinition,
} from '../quantity'
import { channelFor } from './channel'
import { headCorrection } from './head'
import type { Reading, TestRun } from './types'
import { type GaugeAccuracy, readingUncertainty } from './uncertainty'

/** A value to hold against a limit, with what is known of its uncertainty. */
export interface Measured {
  readonly value: number
  /** As displayed, or as worked out from displayed values. */
  readonly text: string
  readonly dimension: Dimension
  readonly unit: string
  readonly digits: number
  /** Standard uncertainty, in `unit`; absent when the instrument is unknown. */
  readonly standard?: number
  /** The value with its head correction, where there is one. */
  readonly corrected?: string
  /** How long it was held, s, where that is part of what is judged. */
  readonly heldS?: number
  /** It is a change in a minute. */
  readonly perMinute?: boolean
}

/** The reading of an item that stands: the one taken last. */
export const standingReading = (run: Pick<TestRun, 'readings'>, item: string) =>
  run.readings.findLast((r) => r.item === item)

/** The answer to an item that stands: what was said last. */
export const standingAnswer = (run: Pick<TestRun, 'answers'>, item: string) =>
  run.answers.findLast((a) => a.item === item)

/** The reading of an item that stands, as a value. */
export function directly(item: string, run: TestRun): Measured | { readonly missing: string } {
  const reading = standingReading(run, item)
  return reading ? measure(reading, channelFor(run, reading)) : { missing: 'not recorded yet' }
}

/** One reading with its head correction and uncertainty. */
export function measure(reading: Reading, gauge: GaugeAccuracy | undefined): Measured {
  const { dimension, unit } = reading
  const shown = parseDisplayed(reading.value)
  const head = headCorrection(reading)
  const digits = displayedDigits(reading.value)
  const parts =
    gauge &&
    readingUncertainty(
      dimension,
      reading.value,
      unit,
      gauge,
      head.halfWidth,
      reading.deviation ?? 0,
    )
  const value = shown + head.add
  return {
    value,
    text: reading.value,
    dimension,
    unit,
    digits: Math.max(digits, unitDefinition(dimension, unit).digits),
    ...(parts ? { standard: parts.combined } : {}),
    ...(head.add !== 0 ? { corrected: roundTo(value, digits + 1) } : {}),
  }
}

/** One reading less another, taken as independent, which can only widen the uncertainty. */
export function differenceOf(
  minuendItem: string,
  subtrahendItem: string,
  run: TestRun,
): Measured | { readonly missing: string } {
  const minuend = standingReading(run, minuendItem)
  const subtrahend = standingReading(run, subtrahendItem)
  if (!minuend || !subtrahend) return { missing: 'needs both readings' }
  const { dimension } = minuend
  if (subtrahend.dimension !== dimension) return { missing: 'its readings are of two quantities' }
  const a = measure(minuend, channelFor(run, minuend))
  const b = measure(subtrahend, channelFor(run, subtrahend))
  const inUnitOfA = (value: number) => convertValue(dimension, value, b.unit, a.unit)
  const digits = Math.max(a.digits, a.unit === b.unit ? b.digits : 0)
  const value = a.value - inUnitOfA(b.value)
  const standards =
    a.standard !== undefined && b.standard !== undefined
      ? { standard: Math.hypot(a.standard, inUnitOfA(b.standard)) }
      : {}
  return { value, text: roundTo(value, digits), dimension, unit: a.unit, digits, ...standards }
}

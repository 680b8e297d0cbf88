import {
  convertValue,
  type Dimension,
  displayedDigits,
  fromSi,
  parseDisplayed,
  roundTo,
  unitDefinition,
} from '../quantity'
import { channelFor } from './channel'
import { headCorrection } from './head'
import { because, type Missing, notRecorded } from './reason'
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
  /** It was counted, one by one. */
  readonly counted?: boolean
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
export function directly(item: string, run: TestRun): Measured | Missing {
  const reading = standingReading(run, item)
  return reading ? measure(reading, channelFor(run, reading)) : { missing: notRecorded }
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
    ...standardOf(reading, parts?.combined),
    ...(head.add !== 0 ? { corrected: roundTo(value, digits + 1) } : {}),
  }
}

/**
 * How well a reading is known. What is counted has no uncertainty of an instrument: each drop was seen, and the
 * limit is held against the count as printed under every decision rule. What is timed or measured by hand without
 * an instrument of the run is known as well as a hand can do it. Of anything else nothing is known.
 */
function standardOf(
  { dimension, value, unit }: Reading,
  byInstrument: number | undefined,
): Pick<Measured, 'standard' | 'counted'> {
  if (dimension === 'frequency') return { standard: 0, counted: true }
  if (byInstrument !== undefined) return { standard: byInstrument }
  const halfWidth = BY_HAND_HALF_WIDTH[dimension]
  if (halfWidth === undefined) return {}
  const resolution = 10 ** -displayedDigits(value) / Math.sqrt(12)
  const hand = (fromSi(dimension, halfWidth, unit) - fromSi(dimension, 0, unit)) / Math.sqrt(3)
  return { standard: Math.hypot(hand, resolution) }
}

/**
 * How far off a hand is, ± in the SI unit: a stopwatch is pressed within 0.3 s at both ends together, and a rule
 * is read to half a millimeter (rectangular, JCGM 100:2008 4.3.7).
 */
const BY_HAND_HALF_WIDTH: Readonly<Partial<Record<Dimension, number>>> = {
  time: 0.3,
  length: 0.0005,
}

/** One reading less another, taken as independent, which can only widen the uncertainty. */
export function differenceOf(
  minuendItem: string,
  subtrahendItem: string,
  run: TestRun,
): Measured | Missing {
  const minuend = standingReading(run, minuendItem)
  const subtrahend = standingReading(run, subtrahendItem)
  if (!minuend || !subtrahend)
    return {
      missing: because('needs-readings', 'needs both readings', {
        items: `${minuendItem} ${subtrahendItem}`,
      }),
    }
  const { dimension } = minuend
  if (subtrahend.dimension !== dimension)
    return { missing: because('other-quantity', 'its readings are of two quantities') }
  const a = measure(minuend, channelFor(run, minuend))
  const b = measure(subtrahend, channelFor(run, subtrahend))
  const inUnitOfA = (value: number) => convertValue(dimension, value, b.unit, a.unit)
  const digits = Math.max(a.digits, a.unit === b.unit ? b.digits : 0)
  const value = a.value - inUnitOfA(b.value)
  const standards =
    a.standard !== undefined && b.standard !== undefined
      ? { standard: Math.hypot(a.standard, inUnitOfA(b.standard)) }
      : {}
  return {
    value,
    text: roundTo(value, digits),
    dimension,
    unit: a.unit,
    digits,
    ...standards,
    ...(a.counted && b.counted ? { counted: true } : {}),
  }
}

import type { PackItem } from './pack'
import { convertValue, displayedDigits, parseDisplayed, roundTo, unitDefinition } from '../quantity'
import { headCorrection } from './head'
import type { Reading, TestRun } from './types'
import { type GaugeAccuracy, readingUncertainty } from './uncertainty'

/** A value to hold against a limit, with what is known of its uncertainty. */
export interface Measured {
  readonly value: number
  /** As displayed, or the difference of two displayed values. */
  readonly text: string
  readonly unit: string
  readonly digits: number
  /** Standard uncertainty, in `unit`; absent when the gauge is unknown. */
  readonly standard?: number
  /** The value with its head correction, where there is one. */
  readonly corrected?: string
}

/** Nothing to measure by: not recorded, or of another quantity than its limit. */
type None = { readonly missing: string } | { readonly strange: string }

/** The reading of an item that stands: the one taken last. */
export const standingReading = (run: Pick<TestRun, 'readings'>, item: string) =>
  run.readings.findLast((r) => r.item === item)

/** The answer to an item that stands: what was said last. */
export const standingAnswer = (run: Pick<TestRun, 'answers'>, item: string) =>
  run.answers.findLast((a) => a.item === item)

/** What an item of a pack has been measured to be, or what is missing for it. */
export function measuredItem(item: PackItem, run: TestRun): Measured | None {
  return item.basis === 'difference' ? difference(item, run) : direct(item, run)
}

const STRANGE = { strange: 'it is of another quantity than its limit' }
const wantedOf = (item: PackItem) => (item.atLeast ?? item.atMost)?.dimension

function direct(item: PackItem, run: TestRun): Measured | None {
  const reading = standingReading(run, item.id)
  if (!reading) return { missing: 'not recorded yet' }
  return reading.dimension === wantedOf(item) ? measure(reading, run.gauge) : STRANGE
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
    unit,
    digits: Math.max(digits, unitDefinition(dimension, unit).digits),
    ...(parts ? { standard: parts.combined } : {}),
    ...(head.add !== 0 ? { corrected: roundTo(value, digits + 1) } : {}),
  }
}

/** Two readings of one gauge, taken as independent, which can only widen the uncertainty. */
function difference(item: PackItem, run: TestRun): Measured | None {
  const minuend = standingReading(run, item.minuend ?? '')
  const subtrahend = standingReading(run, item.subtrahend ?? '')
  if (!minuend || !subtrahend) return { missing: 'needs both readings' }
  if ([minuend, subtrahend].some((r) => r.dimension !== wantedOf(item))) return STRANGE
  const a = measure(minuend, run.gauge)
  const b = measure(subtrahend, run.gauge)
  const inUnitOfA = (value: number) => convertValue(subtrahend.dimension, value, b.unit, a.unit)
  const digits = Math.max(a.digits, a.unit === b.unit ? b.digits : 0)
  const value = a.value - inUnitOfA(b.value)
  const standards =
    a.standard !== undefined && b.standard !== undefined
      ? { standard: Math.hypot(a.standard, inUnitOfA(b.standard)) }
      : {}
  return { value, text: roundTo(value, digits), unit: a.unit, digits, ...standards }
}

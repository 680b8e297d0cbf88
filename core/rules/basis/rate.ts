import type * as yup from 'yup'
import { secondsBetween } from '../../calendar'
import {
  convertValue,
  displayedDigits,
  parseDisplayed,
  roundTo,
  unitDefinition,
} from '../../quantity'
import { anyQuantity, number, slug, strictObject } from '../../schema'
import { standingReading } from '../measure'
import { because, notRecorded } from '../reason'
import type { Reading, TestRun, Trend } from '../types'
import type { Basis, Missing } from './basis'
import { digitsIn, inUnit } from './ends'
import { itemFields } from './fields'
import { named, unknownBase } from './value'

const schema = strictObject({
  ...itemFields('rate'),
  /** The reading that moves; the item itself when absent. */
  reading: slug(),
  /** The reading from which on it was held: what it moved since is the most that it can still move. */
  since: slug(),
  /** The change in a minute that is still accepted, rising or falling. */
  atMost: anyQuantity().default(undefined).optional(),
  /** The same in percent of `of`, a nominal value of the equipment or another reading. */
  percent: number(0, 100),
  of: slug(),
}).test(
  'one-limit',
  'a rate needs either “atMost”, or “percent” with “of”',
  (i: { atMost?: unknown; percent?: unknown; of?: unknown } | undefined) =>
    !i || (i.atMost !== undefined) !== (i.percent !== undefined && i.of !== undefined),
)
type Item = yup.InferType<typeof schema>

const readingOf = (item: Item) => item.reading ?? item.id

/**
 * How fast a reading still moves at its end: a rise that stops is a lock-up, one that goes on is a leaking seat.
 * The trace says it with the uncertainty of its slope; without one, the same reading taken twice does, and what it
 * moved since the hold began is the most that it can be.
 */
export const rate: Basis<Item> = {
  schema,
  recorded: false,
  uncertainty: 'movement',
  restsOn: (item) => [
    readingOf(item),
    ...(item.since ? [item.since] : []),
    ...(item.of ? [item.of] : []),
  ],
  limit: (item) => item.atMost,
  measure: (item, run) => {
    const reading = standingReading(run, readingOf(item))
    if (!reading) return { missing: notRecorded }
    const trend = trendOf(item, reading, run)
    const limit = ends(item, run, reading.unit)
    const undecided =
      trend?.isUpperBound && 'high' in limit && Math.abs(trend.perMinute) > limit.high
    if (!trend || undecided)
      return {
        missing: because(
          'trend-unknown',
          'whether it still moves is not known: hold it on, and read it again after a minute or more',
        ),
      }
    const { dimension, unit } = reading
    const digits =
      Math.max(unitDefinition(dimension, unit).digits, displayedDigits(reading.value)) + 1
    const value = Math.abs(trend.perMinute)
    const short = 'high' in limit ? tooShort(limit.high, value, trend) : null
    if (short) return short
    const text = roundTo(value, digits)
    return { value, text, dimension, unit, digits, perMinute: true, standard: trend.standard }
  },
  ends,
}

function ends(item: Item, run: TestRun, unit: string): Missing | { high: number; digits: number } {
  if (item.atMost) return { high: inUnit(item.atMost, unit), digits: digitsIn(item.atMost, unit) }
  const of = item.of ? named(run, item.of) : undefined
  if (!of) return { missing: unknownBase(item.of ?? '') }
  const high = (Math.abs(inUnit(of, unit)) * (item.percent ?? 0)) / 100
  return { high, digits: unitDefinition(of.dimension, unit).digits + 2 }
}

/** Twice a standard uncertainty, about 95 %. */
const SURE = 2

/** Says that a movement under its limit cannot be told from one above it. */
function tooShort(most: number, value: number, { standard }: Trend): Missing | null {
  const expanded = SURE * standard
  if (expanded <= most || value > most + expanded) return null
  return {
    missing: because(
      'trend-too-short',
      'too short to tell whether it still moves: hold it longer, and read it again',
    ),
  }
}

interface KnownTrend extends Trend {
  /** A movement that slows down is no faster at its end than on average. */
  readonly isUpperBound?: boolean
}

/** The movement at the end of a reading: by its trace, by the same reading before it, or since the hold began. */
function trendOf(item: Item, reading: Reading, run: TestRun): KnownTrend | null {
  if (reading.trend) return reading.trend
  const before = run.readings.filter((r) => r.item === reading.item && r !== reading).at(-1)
  const start = item.since ? standingReading(run, item.since) : undefined
  const twice = before && between(before, reading, undefined)
  if (twice) return twice
  const average = start && between(start, reading, reading.heldS)
  if (average) return { ...average, isUpperBound: true }
  // Without times at all it is what the tester wrote down of it.
  const { driftPerMinute: drift } = reading
  if (drift === undefined) return null
  const step = 10 ** -displayedDigits(reading.value)
  return { perMinute: drift, standard: step / Math.sqrt(6) }
}

/** Two readings closer together than this say nothing of a movement, s. */
const SHORTEST_S = 60

function between(first: Reading, last: Reading, heldS: number | undefined): Trend | null {
  if (first.dimension !== last.dimension) return null
  const stamped =
    first.takenAt && last.takenAt ? secondsBetween(first.takenAt, last.takenAt) : undefined
  const seconds = stamped ?? heldS
  if (seconds === undefined || seconds < SHORTEST_S) return null
  const minutes = seconds / 60
  const at = (r: Reading) => convertValue(r.dimension, parseDisplayed(r.value), r.unit, last.unit)
  const step = (r: Reading) =>
    Math.abs(convertValue(r.dimension, 10 ** -displayedDigits(r.value), r.unit, last.unit)) /
    Math.sqrt(12)
  return {
    perMinute: (at(last) - at(first)) / minutes,
    standard: Math.hypot(step(first), step(last)) / minutes,
  }
}

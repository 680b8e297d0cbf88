import { secondsBetween } from '../calendar'
import { studentBelow, studentQuantile } from './student'

/** One test of one item, as a value in one unit. */
export interface DriftTest {
  /** Day of the test. */
  readonly date: string
  readonly asFound?: number | undefined
  readonly asLeft?: number | undefined
}

export interface Drift {
  /** Intervals between two tests on which it rests. */
  readonly intervals: number
  /** Change in a year, in the unit of the values; falling is negative. */
  readonly perYear: number
  /** The true rate lies within ± this with 95 % confidence; absent from one interval. */
  readonly within?: number
  /** What it is expected to read at the next date. */
  readonly expected: number
  /** Chance of being out of its limits then; absent from one interval or without limits. */
  readonly chanceOut?: number
}

const DAYS_PER_YEAR = 365.25
/** A shorter interval than 30 days says nothing of a year. */
const SHORTEST_YEARS = 30 / DAYS_PER_YEAR
const CONFIDENCE = 0.975

const years = (from: string, to: string) => secondsBetween(from, to) / 86_400 / DAYS_PER_YEAR

/**
 * How a value drifts from one test to the next: what was found less what was left the time before, by
 * the time between. What was left is what was found where nothing was done.
 * The rate of each interval counts alike; the spread of the rates gives the confidence (Student).
 *
 * @param tests oldest first
 * @param nextOn the day for which the value is foretold, as the next due date
 * @param limits ends between which the value is accepted
 * @returns null when no two tests lie far enough apart
 */
export function drift(
  tests: readonly DriftTest[],
  nextOn: string,
  limits: { readonly low?: number | undefined; readonly high?: number | undefined } = {},
): Drift | null {
  const left = (t: DriftTest) => t.asLeft ?? t.asFound
  const rates = tests.slice(1).flatMap((test, n) => {
    const before = tests[n] as DriftTest
    const [from, to] = [left(before), test.asFound]
    const time = years(before.date, test.date)
    if (from === undefined || to === undefined || time < SHORTEST_YEARS) return []
    return [(to - from) / time]
  })
  const last = tests.findLast((t) => left(t) !== undefined)
  const n = rates.length
  if (!last || n === 0) return null
  const perYear = rates.reduce((a, b) => a + b, 0) / n
  const ahead = Math.max(0, years(last.date, nextOn))
  const expected = (left(last) ?? 0) + perYear * ahead
  if (n === 1) return { intervals: n, perYear, expected }
  const spread = Math.sqrt(rates.reduce((a, r) => a + (r - perYear) ** 2, 0) / (n - 1))
  const within = (studentQuantile(CONFIDENCE, n - 1) * spread) / Math.sqrt(n)
  // A single coming interval scatters as each of those before, beside the doubt of the mean.
  const scatter = spread * Math.sqrt(1 + 1 / n) * ahead
  return {
    intervals: n,
    perYear,
    within,
    expected,
    ...(limits.low === undefined && limits.high === undefined
      ? {}
      : { chanceOut: outside(expected, scatter, n - 1, limits) }),
  }
}

function outside(
  expected: number,
  scatter: number,
  degrees: number,
  { low, high }: { readonly low?: number | undefined; readonly high?: number | undefined },
): number {
  const below = (end: number) =>
    scatter === 0 ? Number(expected < end) : studentBelow((end - expected) / scatter, degrees)
  const under = low === undefined ? 0 : below(low)
  const over = high === undefined ? 0 : 1 - below(high)
  return Math.min(1, under + over)
}

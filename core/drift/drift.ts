import { secondsBetween } from '../calendar'
import { studentBelow, studentQuantile } from './student'

/** One test of one item, as a value in one unit. */
export interface DriftTest {
  /** Day of the test. */
  readonly date: string
  readonly asFound?: number | undefined
  /** What it was left at where something was done or set; what follows drifts from there. */
  readonly asLeft?: number | undefined
  /** Standard uncertainty of its readings, gauge and repeatability together, in the same unit. */
  readonly standard?: number | undefined
}

export interface Drift {
  /** Intervals between readings on which it rests. */
  readonly intervals: number
  /** Change in a year, in the unit of the values; falling is negative. */
  readonly perYear: number
  /** The true rate lies within ± this with 95 % confidence; absent where the readings cannot tell. */
  readonly within?: number
  /** What it is expected to read at the next date. */
  readonly expected: number
  /** Chance of being out of its limits then; absent with too little data, or without limits. */
  readonly chanceOut?: number
  /** The readings are too few, or lie too close together, for a rate that means anything. */
  readonly isTooLittle: boolean
}

const DAYS_PER_YEAR = 365.25
/** Readings that lie closer together than 30 days in all say nothing of a year. */
const SHORTEST_YEARS = 30 / DAYS_PER_YEAR
const CONFIDENCE = 0.975
/** A chance is given from this many degrees of freedom on. */
const ENOUGH_DEGREES = 2
/** A stated uncertainty counts for as much as so many repeated readings, beside what the readings scatter. */
const STATED_WORTH = 20

const years = (from: string, to: string) => secondsBetween(from, to) / 86_400 / DAYS_PER_YEAR

/** A reading with its time in years and its weight; those of one segment lie between two settings. */
interface Point {
  readonly at: number
  readonly value: number
  readonly weight: number
}

/**
 * Fits how a value drifts over all its tests: one rate, and a level of its own from each setting on, by weighted
 * least squares. Two readings a few weeks apart hardly move the rate, since a rate rests on how far readings lie
 * apart. The scatter about the line gives the confidence (Student), with the stated uncertainty of the readings where
 * it is known. Source: analysis of covariance with a common slope, Draper & Smith, Applied Regression Analysis, 14.
 *
 * @param tests oldest first
 * @param nextOn the day for which the value is foretold, as the next due date
 * @param limits ends between which the value is accepted
 * @returns null when no two readings between settings lie far enough apart
 */
export function drift(
  tests: readonly DriftTest[],
  nextOn: string,
  limits: { readonly low?: number | undefined; readonly high?: number | undefined } = {},
): Drift | null {
  const [firstTest] = tests
  if (!firstTest) return null
  const segments = segmentsOf(tests, firstTest.date)
  const readings = segments.reduce((n, s) => n + s.length, 0)
  const longest = Math.max(...segments.map((s) => (s.at(-1)?.at ?? 0) - (s[0]?.at ?? 0)))
  const last = segments.at(-1)
  if (!last || longest < SHORTEST_YEARS) return null

  const centers = segments.map(centerOf)
  const sums = segments.map((s, n) => slopeSums(s, centers[n] as Center))
  const spreadOfTime = sums.reduce((a, s) => a + s.time, 0)
  const perYear = sums.reduce((a, s) => a + s.product, 0) / spreadOfTime
  const squares = segments
    .flatMap((s, n) => s.map((p) => residual(p, centers[n] as Center, perYear)))
    .reduce((a, r) => a + r, 0)
  const { variance, degrees } = noiseOf(tests, squares, readings - segments.length - 1)

  const center = centers.at(-1) as Center
  const ahead = Math.max(years(firstTest.date, nextOn), last.at(-1)?.at ?? 0) - center.at
  const expected = center.value + perYear * ahead
  const facts = { intervals: readings - segments.length, perYear, expected }
  if (degrees < 1) return { ...facts, isTooLittle: true }
  const within = studentQuantile(CONFIDENCE, degrees) * Math.sqrt(variance / spreadOfTime)
  const isTooLittle = degrees < ENOUGH_DEGREES
  if (isTooLittle || (limits.low === undefined && limits.high === undefined))
    return { ...facts, within, isTooLittle }
  // What will be read then scatters as well.
  const weight = last.reduce((a, p) => a + p.weight, 0) / last.length
  const scatter = Math.sqrt(variance * (1 / weight + 1 / center.weight + ahead ** 2 / spreadOfTime))
  return { ...facts, within, isTooLittle, chanceOut: outside(expected, scatter, degrees, limits) }
}

/** Readings between two settings each: what was left after work begins the next one. */
function segmentsOf(tests: readonly DriftTest[], from: string): Point[][] {
  const segments: Point[][] = [[]]
  for (const { date, asFound, asLeft, standard } of tests) {
    const at = years(from, date)
    const weight = standard ? 1 / standard ** 2 : 1
    if (asFound !== undefined) segments.at(-1)?.push({ at, value: asFound, weight })
    if (asLeft !== undefined) segments.push([{ at, value: asLeft, weight }])
  }
  return segments.filter((s) => s.length > 0)
}

type Center = Point
function centerOf(points: readonly Point[]): Center {
  const weight = points.reduce((a, p) => a + p.weight, 0)
  const mean = (of: (p: Point) => number) =>
    points.reduce((a, p) => a + p.weight * of(p), 0) / weight
  return { at: mean((p) => p.at), value: mean((p) => p.value), weight }
}

const slopeSums = (points: readonly Point[], c: Center) => ({
  time: points.reduce((a, p) => a + p.weight * (p.at - c.at) ** 2, 0),
  product: points.reduce((a, p) => a + p.weight * (p.at - c.at) * (p.value - c.value), 0),
})

const residual = (p: Point, c: Center, perYear: number) =>
  p.weight * (p.value - c.value - perYear * (p.at - c.at)) ** 2

/**
 * The variance of a reading of weight one: from the scatter about the line, and where every reading states its
 * uncertainty (then it is 1) from both, the statement counting as so many repeats.
 */
function noiseOf(tests: readonly DriftTest[], squares: number, degrees: number) {
  const isStated = tests.every((t) => t.standard !== undefined && t.standard > 0)
  const worth = isStated ? STATED_WORTH : 0
  const all = degrees + worth
  return { variance: all > 0 ? (squares + worth) / all : 0, degrees: all }
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

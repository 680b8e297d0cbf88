import { analyseTrace } from './analyse'
import type { TraceAnalysis, TraceSource } from './types'

/** A reading found on a trace. */
export interface PickedReading {
  readonly index: number
  readonly value: number
  /** Standard deviation of what it rests on. */
  readonly deviation: number
  /** How fast the needle still moves at the end, in the unit of the samples a minute. */
  readonly driftPerMinute: number
  readonly analysis: TraceAnalysis
}

/** How long a person takes from seeing a drip to pressing, s. */
const REACTION_S = 0.6
/** A found opening belongs to a press that comes within this time after it; a late press is no wrong reading. */
const BELONGS_S = 30
/** What was seen and what is found on the trace are one opening within this time, s. */
const AGREES_S = 2

/**
 * The last rest of a trace; null while it has none, or while it moves faster than a rest may. Over a
 * short stretch noise looks like movement: such a rest is known as one only when it has lasted.
 *
 * @param mostDrift in the unit of the samples a minute; none where a step sets no limit
 */
export function pickPlateau(
  values: Float64Array,
  source: TraceSource,
  mostDrift = Infinity,
): PickedReading | null {
  const analysis = analyseTrace(values, source)
  const rest = analysis.plateaus.at(-1)
  // The trace must be resting now, not some time ago.
  if (!rest || (values.length - rest.to) * source.periodS > 1.5) return null
  const { mean, deviation, driftPerMinute } = rest
  if (Math.abs(driftPerMinute) > mostDrift) return null
  return { index: rest.to - 1, value: mean, deviation, driftPerMinute, analysis }
}

/**
 * Where something opened, for a press at the end of the trace: the opening found shortly before it,
 * else the value a reaction time before the press.
 *
 * @param seenAt sample at which it was seen, where the site itself says so; then nobody’s reaction counts
 */
export function pickOpening(
  values: Float64Array,
  source: TraceSource,
  seenAt?: number,
): PickedReading | null {
  if (values.length === 0) return null
  const analysis = analyseTrace(values, source)
  const near = (index: number, of: number, s: number) => Math.abs(of - index) * source.periodS <= s
  const found = analysis.openings.findLast((o) =>
    seenAt === undefined
      ? near(o.index, values.length - 1, BELONGS_S)
      : near(o.index, seenAt, AGREES_S),
  )
  const deviation = Math.max(analysis.noise, source.resolution / Math.sqrt(12))
  const driftPerMinute = 0
  if (found) return { index: found.index, value: found.value, deviation, driftPerMinute, analysis }
  const pressed = values.length - 1 - Math.round(REACTION_S / source.periodS)
  const index = Math.min(Math.max(0, seenAt ?? pressed), values.length - 1)
  return { index, value: values[index] as number, deviation, driftPerMinute, analysis }
}

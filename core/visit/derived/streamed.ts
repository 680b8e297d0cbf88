import { CannotCompute } from '../../errors'
import { convertValue, displayedDigits, isUnitOf, parseDisplayed } from '../../quantity'
import { decodeTrace, swingOf, type Trace, type TraceTrend, trendAt } from '../../trace'
import type { PayloadOf } from '../log/events'

type ReadingPayload = PayloadOf<'reading'>

/** What the trace of a reading shows, in the unit of the reading. */
export interface ShownByTrace {
  readonly swing?: number
  readonly trend?: TraceTrend
  /** How long the trace lasts up to the reading, s. */
  readonly heldS: number
}

/** A stretch about the mark in which its noise is seen, s. */
const NEAR_S = 1

/**
 * Returns what the trace of a streamed reading shows, or null where the reading is not what its trace shows at its
 * mark: then it is no more than typed, whatever it says of itself. Worked out once for each payload.
 */
export function shownByTrace(reading: ReadingPayload): ShownByTrace | null {
  const have = known.get(reading)
  if (have) return have.shown
  const shown = reading.source === 'streamed' && reading.trace ? confirmed(reading) : null
  known.set(reading, { shown })
  return shown
}

const known = new WeakMap<ReadingPayload, { readonly shown: ShownByTrace | null }>()

/** Whether a reading was streamed, and its trace bears it out. */
export const isStreamed = (reading: ReadingPayload): boolean => shownByTrace(reading) !== null

function confirmed(reading: ReadingPayload): ShownByTrace | null {
  const { trace, dimension, unit, value } = reading
  const decoded = trace && decode(trace.data)
  if (!trace || !decoded || !isUnitOf(dimension, decoded.unit)) return null
  const { values, periodS } = decoded
  if (trace.mark >= values.length) return null
  const scale = (v: number) =>
    convertValue(dimension, v, decoded.unit, unit) - convertValue(dimension, 0, decoded.unit, unit)
  const at = convertValue(dimension, values[trace.mark] as number, decoded.unit, unit)
  const step = Math.max(scale(decoded.resolution), 10 ** -displayedDigits(value))
  const noise = scale(noiseAt(decoded, trace.mark))
  if (!(Math.abs(parseDisplayed(value) - at) <= 2 * step + 4 * noise)) return null
  const trend = trendAt(values, decoded, trace.mark)
  const swing = swingOf(values, periodS)
  return {
    heldS: values.length * periodS,
    ...(swing === undefined ? {} : { swing: scale(swing) }),
    ...(trend
      ? { trend: { perMinute: scale(trend.perMinute), standard: scale(trend.standard) } }
      : {}),
  }
}

function decode(data: string): Trace | null {
  try {
    return decodeTrace(data)
  } catch (error) {
    if (error instanceof CannotCompute) return null
    throw error
  }
}

/** Standard deviation of the samples close to the mark. */
function noiseAt({ values, periodS }: Trace, mark: number): number {
  const reach = Math.max(1, Math.round(NEAR_S / periodS))
  const near = values.slice(Math.max(0, mark - reach), mark + reach + 1).filter(Number.isFinite)
  const mean = near.reduce((a, b) => a + b, 0) / Math.max(1, near.length)
  const squares = near.reduce((sum, v) => sum + (v - mean) ** 2, 0)
  return Math.sqrt(squares / Math.max(1, near.length - 1))
}

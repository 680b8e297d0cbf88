/** The stretch before a reading that its movement is taken from, s. */
const OVER_S = 60
/** A shorter stretch says nothing of a movement, s. */
const SHORTEST_S = 30

/** A movement in the unit of the samples a minute, negative when they fall, with its standard uncertainty. */
export interface TraceTrend {
  readonly perMinute: number
  readonly standard: number
}

/**
 * Computes how fast a trace still moves at a sample: the least-squares slope of the minute before it. Samples closer
 * together than a second are not taken as independent of each other, and one step of the display bounds the noise
 * from below.
 *
 * @param values in the unit of the display; lost samples are NaN and left out
 * @param mark the sample at which the reading was taken
 * @returns undefined where less than 30 s stand before the mark
 */
export function trendAt(
  values: Float64Array,
  { periodS, resolution }: { readonly periodS: number; readonly resolution: number },
  mark: number,
): TraceTrend | undefined {
  const from = Math.max(0, mark + 1 - Math.round(OVER_S / periodS))
  const points: { readonly minutes: number; readonly value: number }[] = []
  for (let i = from; i <= Math.min(mark, values.length - 1); i++) {
    const value = values[i] as number
    if (Number.isFinite(value)) points.push({ minutes: ((i - from) * periodS) / 60, value })
  }
  const seconds = (points.at(-1)?.minutes ?? 0) * 60
  if (seconds < SHORTEST_S) return undefined
  const mean = (of: (p: (typeof points)[number]) => number) =>
    points.reduce((sum, p) => sum + of(p), 0) / points.length
  const [at, middle] = [mean((p) => p.minutes), mean((p) => p.value)]
  const spread = points.reduce((sum, p) => sum + (p.minutes - at) ** 2, 0)
  const slope = points.reduce((sum, p) => sum + (p.minutes - at) * (p.value - middle), 0) / spread
  const left = points.reduce(
    (sum, p) => sum + (p.value - middle - slope * (p.minutes - at)) ** 2,
    0,
  )
  const deviation = Math.max(
    Math.sqrt(left / Math.max(1, points.length - 2)),
    resolution / Math.sqrt(12),
  )
  // Var of a slope is σ² ÷ Σ(t − t̄)²; only as many samples as seconds are independent.
  const independent = Math.min(points.length, seconds)
  const standard = deviation / Math.sqrt((spread * independent) / points.length)
  return { perMinute: slope, standard }
}

/** The stretch that is looked at, s: some periods of a hunting regulator. */
const OVER_S = 20
/** A stretch shorter than this says nothing, s. */
const SHORTEST_S = 10
/** Means of this long keep the noise of the needle out, s. */
const BLOCK_S = 0.5

/**
 * How widely a needle swings about its slow movement, from trough to crest, over the last 20 s: the
 * hunting of a regulator. What is lost is left out; undefined where the trace is too short to tell.
 *
 * @param periodS seconds between samples
 * @returns in the unit of the samples
 */
export function swingOf(values: Float64Array, periodS: number): number | undefined {
  const last = values.slice(-Math.round(OVER_S / periodS))
  const size = Math.max(1, Math.round(BLOCK_S / periodS))
  const points: { readonly at: number; readonly mean: number }[] = []
  for (let from = 0; from + size <= last.length; from += size) {
    const block = last.slice(from, from + size).filter((v) => v === v)
    if (block.length === 0) continue
    const mean = block.reduce((a, b) => a + b, 0) / block.length
    points.push({ at: from, mean })
  }
  if (points.length * size * periodS < SHORTEST_S) return undefined
  const slope = slopeOf(points)
  const level = points.map(({ at, mean }) => mean - slope * at)
  return Math.max(...level) - Math.min(...level)
}

/** Least squares. */
function slopeOf(points: readonly { readonly at: number; readonly mean: number }[]): number {
  const middle = (of: (p: { at: number; mean: number }) => number) =>
    points.reduce((sum, p) => sum + of(p), 0) / points.length
  const at = middle((p) => p.at)
  const mean = middle((p) => p.mean)
  const top = points.reduce((sum, p) => sum + (p.at - at) * (p.mean - mean), 0)
  const bottom = points.reduce((sum, p) => sum + (p.at - at) ** 2, 0)
  return bottom > 0 ? top / bottom : 0
}

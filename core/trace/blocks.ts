/** Statistics of half a second of samples; everything else in a trace is found from these. */
export interface Blocks {
  readonly size: number
  readonly count: number
  readonly mean: Float64Array
  /** Standard deviation within the block. */
  readonly deviation: Float64Array
  readonly least: Float64Array
  readonly most: Float64Array
  /** Samples in the block that are numbers; a dropped sample is NaN. */
  readonly seen: Uint32Array
  /** The longest run of one and the same value in the whole trace. */
  readonly longestRun: { readonly from: number; readonly length: number }
  readonly gaps: number
}

const BLOCK_S = 0.5
const SMALLEST = 4

/** One pass over the samples. A trailing part of a block is left out. */
export function blocksOf(values: Float64Array, periodS: number): Blocks {
  const size = Math.max(SMALLEST, Math.round(BLOCK_S / periodS))
  const count = Math.floor(values.length / size)
  const mean = new Float64Array(count)
  const deviation = new Float64Array(count)
  const least = new Float64Array(count)
  const most = new Float64Array(count)
  const seen = new Uint32Array(count)
  let gaps = 0
  let before = NaN
  let run = 0
  let longest = 0
  let longestFrom = 0
  for (let b = 0; b < count; b++) {
    const start = b * size
    const end = start + size
    // Sums are taken against the first sample, so that small deviations keep their digits.
    let origin = NaN
    let n = 0
    let sum = 0
    let squares = 0
    let low = Infinity
    let high = -Infinity
    for (let i = start; i < end; i++) {
      const v = values[i] as number
      if (v === before) run++
      else {
        if (run > longest) {
          longest = run
          longestFrom = i - run
        }
        run = 1
        before = v
      }
      if (v !== v) {
        gaps++
        continue
      }
      if (n === 0) origin = v
      const d = v - origin
      n++
      sum += d
      squares += d * d
      if (v < low) low = v
      if (v > high) high = v
    }
    seen[b] = n
    mean[b] = n > 0 ? origin + sum / n : NaN
    deviation[b] = n > 1 ? Math.sqrt(Math.max(0, (squares - (sum * sum) / n) / (n - 1))) : NaN
    least[b] = low
    most[b] = high
  }
  const last = count * size
  if (run > longest) {
    longest = run
    longestFrom = last - run
  }
  return {
    size,
    count,
    mean,
    deviation,
    least,
    most,
    seen,
    gaps,
    longestRun: { from: longestFrom, length: longest },
  }
}

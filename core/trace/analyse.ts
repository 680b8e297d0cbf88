import { type Blocks, blocksOf } from './blocks'
import { openingPoints } from './opening'
import { plateausOf } from './plateau'
import type { TraceAnalysis, TraceDoubt, TraceSource } from './types'

/** A display that shows one value for longer than this, although it flickers elsewhere, hangs. */
const FROZEN_S = 3
/** Swings of this many noise widths between calm blocks are air in a hose. */
const BOUNCE_WIDTHS = 10

/**
 * What a trace says: where it rests and how surely, where something opened, how fast the gauge
 * answers, and what makes it doubtful. One pass over the samples; the rest works on half-second
 * blocks. Dropped samples are NaN.
 */
export function analyseTrace(values: Float64Array, source: TraceSource): TraceAnalysis {
  const blocks = blocksOf(values, source.periodS)
  const noise = noiseOf(blocks)
  const floor = Math.max(noise, source.resolution / Math.sqrt(12))
  const plateaus = plateausOf(blocks, floor, source)
  return {
    samples: values.length,
    durationS: values.length * source.periodS,
    noise,
    plateaus,
    openings: openingPoints(values, blocks, floor),
    ...lagOf(values, plateaus, floor, source),
    doubts: doubtsOf(blocks, noise, floor, source),
  }
}

/** Noise of the calm blocks: the lower third of the deviations, which steps and ramps do not reach. */
function noiseOf(blocks: Blocks): number {
  const calm = Float64Array.from(blocks.deviation.filter((d) => d === d)).sort()
  return calm.length === 0 ? 0 : (calm[Math.floor(calm.length / 3)] as number)
}

/** First-order time constant from the step between two plateaus: 5 % to 63.2 % takes 0.95 τ. */
function lagOf(
  values: Float64Array,
  plateaus: TraceAnalysis['plateaus'],
  floor: number,
  { periodS }: TraceSource,
): { lagS?: number } {
  let best: number | undefined
  let greatest = 20 * floor
  for (let n = 1; n < plateaus.length; n++) {
    const [a, b] = [plateaus[n - 1], plateaus[n]]
    if (!a || !b || Math.abs(b.mean - a.mean) <= greatest) continue
    greatest = Math.abs(b.mean - a.mean)
    const reached = (part: number) => {
      for (let i = a.to - 1; i < b.to; i++) {
        if (((values[i] as number) - a.mean) / (b.mean - a.mean) >= part) return i
      }
      return b.from
    }
    best = ((reached(0.632) - reached(0.05)) * periodS) / 0.95
  }
  return best === undefined ? {} : { lagS: best }
}

function doubtsOf(
  blocks: Blocks,
  noise: number,
  floor: number,
  { periodS, resolution, span }: TraceSource,
): { kind: TraceDoubt; says: string }[] {
  const doubts: { kind: TraceDoubt; says: string }[] = []
  const { longestRun, gaps } = blocks
  if (longestRun.length * periodS >= FROZEN_S && noise > 0.4 * resolution) {
    const seconds = (longestRun.length * periodS).toFixed(1)
    doubts.push({
      kind: 'frozen',
      says: `The display stood still for ${seconds} s, which it does not do at rest: check the gauge.`,
    })
  }
  if (span !== undefined && blocks.most.some((m) => m >= span - resolution / 2)) {
    doubts.push({
      kind: 'saturated',
      says: 'The reading stands at the end of the scale: use a gauge of a larger range.',
    })
  }
  if (bouncing(blocks, floor)) {
    doubts.push({ kind: 'bounce', says: 'The needle bounces: bleed the air out of the hoses.' })
  }
  if (gaps > 0) {
    doubts.push({ kind: 'gaps', says: `${gaps} samples are missing: the link dropped out.` })
  }
  return doubts
}

/** Wide blocks whose neighbours on both sides have nearly the same mean: a swing, not a step. */
function bouncing(blocks: Blocks, floor: number): boolean {
  let swings = 0
  for (let b = 1; b + 1 < blocks.count; b++) {
    const wide = (blocks.most[b] as number) - (blocks.least[b] as number)
    const way = Math.abs((blocks.mean[b + 1] as number) - (blocks.mean[b - 1] as number))
    if (wide > BOUNCE_WIDTHS * floor && way < wide / 4) swings++
  }
  return swings >= 3
}

import type { Blocks } from './blocks'
import type { Plateau, TraceSource } from './types'

/** A rest counts from this length on. */
const SHORTEST_S = 2

/** Stretches in which the block means keep together within the noise. */
export function plateausOf(
  blocks: Blocks,
  floor: number,
  { periodS, resolution }: TraceSource,
): Plateau[] {
  const { size, count, mean, deviation } = blocks
  const near = Math.max((3.5 * floor) / Math.sqrt(size), 1.2 * resolution)
  const calm = 4 * floor
  const shortest = Math.max(3, Math.round(SHORTEST_S / (size * periodS)))
  const plateaus: Plateau[] = []
  let from = -1
  let sum = 0
  const close = (to: number) => {
    if (from >= 0 && to - from >= shortest) plateaus.push(plateau(blocks, from, to, periodS))
    from = -1
  }
  for (let b = 0; b < count; b++) {
    const m = mean[b] as number
    const still = (deviation[b] as number) <= calm
    if (from >= 0 && (!still || Math.abs(m - sum / (b - from)) > near)) close(b)
    if (!still) continue
    if (from < 0) {
      from = b
      sum = 0
    }
    sum += m
  }
  close(count)
  return plateaus
}

function plateau(blocks: Blocks, from: number, to: number, periodS: number): Plateau {
  const { size, mean, deviation } = blocks
  const n = to - from
  let sum = 0
  for (let b = from; b < to; b++) sum += mean[b] as number
  const centre = sum / n
  let within = 0
  let between = 0
  let slopeTop = 0
  let slopeBottom = 0
  for (let b = from; b < to; b++) {
    const off = (mean[b] as number) - centre
    const t = b - from - (n - 1) / 2
    within += (deviation[b] as number) ** 2 * (size - 1)
    between += size * off * off
    slopeTop += t * off
    slopeBottom += t * t
  }
  return {
    from: from * size,
    to: to * size,
    mean: centre,
    deviation: Math.sqrt((within + between) / Math.max(1, n * size - 1)),
    driftPerMinute: slopeBottom > 0 ? ((slopeTop / slopeBottom) * 60) / (size * periodS) : 0,
  }
}

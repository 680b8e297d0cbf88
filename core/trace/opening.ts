import type { Blocks } from './blocks'
import type { OpeningPoint } from './types'

/** A fall counts as steady from this many blocks on. */
const SHORTEST_FALL = 4
/** How much slower or faster than the fall before it has become when something has opened. */
const SLOWER = 0.35
const FASTER = 3
/** Blocks whose line is carried on to meet what follows. */
const LINE_BLOCKS = 8

/**
 * Ends of steady falls. A relief that opens stops the fall; an air inlet that opens lets it drop
 * away. The point is where the line of the fall leaves the trace.
 */
export function openingPoints(values: Float64Array, blocks: Blocks, floor: number): OpeningPoint[] {
  const { size, count, mean } = blocks
  const least = Math.max(floor / Math.sqrt(size), 1e-12)
  const points: OpeningPoint[] = []
  let start = -1
  // The tail of a drop is no fall of its own: after an opening the trace must rest or rise once.
  let over = false
  for (let b = 0; b + 1 < count; b++) {
    const slope = (mean[b + 1] as number) - (mean[b] as number)
    if (over) {
      over = slope < -2 * least
      continue
    }
    if (start < 0) {
      if (slope < -2 * least) start = b
      continue
    }
    const length = b - start
    const typical =
      ((mean[b] as number) - (mean[Math.max(start, b - LINE_BLOCKS)] as number)) /
      Math.min(length, LINE_BLOCKS)
    if (length < SHORTEST_FALL) {
      if (slope >= -least) start = -1
      continue
    }
    const after = b + 2 < count ? (mean[b + 2] as number) - (mean[b + 1] as number) : slope
    if (slope > SLOWER * typical && after > SLOWER * typical) {
      points.push(meeting(values, blocks, b, Math.max(start, b - LINE_BLOCKS), 'stops'))
      start = -1
      over = true
    } else if (slope < FASTER * typical && slope < typical - 6 * least) {
      points.push(departure(values, blocks, b, Math.max(start, b - LINE_BLOCKS), floor))
      start = -1
      over = true
    }
  }
  return points
}

/** Straight line through the block means from a to b: value at sample i. */
function lineThrough(
  { size, mean }: Blocks,
  a: number,
  b: number,
): { at: (i: number) => number; slope: number } {
  const n = b - a + 1
  let sum = 0
  for (let k = a; k <= b; k++) sum += mean[k] as number
  const centre = sum / n
  let top = 0
  let bottom = 0
  for (let k = a; k <= b; k++) {
    const t = k - (a + b) / 2
    top += t * ((mean[k] as number) - centre)
    bottom += t * t
  }
  const slope = bottom > 0 ? top / bottom / size : 0
  const middle = ((a + b) / 2 + 0.5) * size - 0.5
  return { at: (i) => centre + slope * (i - middle), slope }
}

/** Where the line of the fall meets the level that follows it. */
function meeting(
  values: Float64Array,
  blocks: Blocks,
  b: number,
  from: number,
  then: OpeningPoint['then'],
): OpeningPoint {
  const line = lineThrough(blocks, from, Math.max(from, b - 1))
  const level = blocks.mean[Math.min(b + 1, blocks.count - 1)] as number
  const start = (Math.max(from, b - 1) + 0.5) * blocks.size
  const wanted = start + (line.slope === 0 ? 0 : (level - line.at(start)) / line.slope)
  const last = Math.min((b + 2) * blocks.size, values.length - 1)
  const index = Math.round(Math.min(Math.max(wanted, b * blocks.size - blocks.size), last))
  return { index, value: line.at(index), then }
}

/** The last sample before the trace leaves the line of the fall downwards. */
function departure(
  values: Float64Array,
  blocks: Blocks,
  b: number,
  from: number,
  floor: number,
): OpeningPoint {
  const line = lineThrough(blocks, from, Math.max(from, b - 1))
  let index = (b + 2) * blocks.size - 1
  const first = Math.max(0, (b - 1) * blocks.size)
  for (let i = first; i < Math.min(values.length, (b + 2) * blocks.size); i++) {
    if ((values[i] as number) < line.at(i) - 5 * floor) {
      index = i - 1
      break
    }
  }
  return { index: Math.max(0, index), value: middleOf(values, index), then: 'drops' }
}

/** The middle one of the last few samples up to an index: a flicker does not count. */
function middleOf(values: Float64Array, index: number): number {
  const last = values.slice(Math.max(0, index - 4), index + 1).filter((v) => v === v)
  return last.sort()[Math.floor(last.length / 2)] ?? NaN
}

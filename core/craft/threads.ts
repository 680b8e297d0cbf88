import { CannotCompute } from '../errors'
/** A thread with what a tightening is reckoned from. */
export interface Thread {
  readonly name: string
  /** Nominal diameter, m. */
  readonly diameterM: number
  /** Tensile stress area, m². */
  readonly areaM2: number
}

const IN = 0.0254
/** Metric coarse: diameter and pitch, mm (ISO 261). */
const METRIC: readonly (readonly [number, number])[] = [
  [3, 0.5],
  [4, 0.7],
  [5, 0.8],
  [6, 1],
  [8, 1.25],
  [10, 1.5],
  [12, 1.75],
  [14, 2],
  [16, 2],
  [20, 2.5],
  [24, 3],
  [30, 3.5],
  [36, 4],
]
/** Unified coarse: name, diameter in inches, threads per inch (ASME B1.1). */
const UNIFIED: readonly (readonly [string, number, number])[] = [
  ['#10-24', 0.19, 24],
  ['1/4-20', 0.25, 20],
  ['5/16-18', 0.3125, 18],
  ['3/8-16', 0.375, 16],
  ['7/16-14', 0.4375, 14],
  ['1/2-13', 0.5, 13],
  ['5/8-11', 0.625, 11],
  ['3/4-10', 0.75, 10],
  ['7/8-9', 0.875, 9],
  ['1-8', 1, 8],
  ['1 1/4-7', 1.25, 7],
  ['1 1/2-6', 1.5, 6],
]

/** Metric fine: diameter and pitch, mm (ISO 261). */
const METRIC_FINE: readonly (readonly [number, number])[] = [
  [8, 1],
  [10, 1],
  [10, 1.25],
  [12, 1.25],
  [12, 1.5],
  [14, 1.5],
  [16, 1.5],
  [20, 1.5],
  [24, 2],
  [30, 2],
]
/** Unified fine: name, diameter in inches, threads per inch (ASME B1.1). */
const UNIFIED_FINE: readonly (readonly [string, number, number])[] = [
  ['#10-32', 0.19, 32],
  ['1/4-28', 0.25, 28],
  ['5/16-24', 0.3125, 24],
  ['3/8-24', 0.375, 24],
  ['7/16-20', 0.4375, 20],
  ['1/2-20', 0.5, 20],
  ['5/8-18', 0.625, 18],
  ['3/4-16', 0.75, 16],
  ['7/8-14', 0.875, 14],
  ['1-12', 1, 12],
]

/** Tensile stress area π/4·(d − c·P)²: c is 0.9382 in ISO 898-1, 9.1.6.1, and 0.9743 in ASME B1.1, appendix B. */
const stressArea = (d: number, pitch: number, c: number) => (Math.PI / 4) * (d - c * pitch) ** 2

const metric = (name: string, d: number, pitch: number): Thread => ({
  name,
  diameterM: d / 1000,
  areaM2: stressArea(d / 1000, pitch / 1000, 0.9382),
})

export const threads: readonly Thread[] = [
  ...METRIC.map(([d, pitch]) => metric(`M${d}`, d, pitch)),
  ...METRIC_FINE.map(([d, pitch]) => metric(`M${d}×${pitch}`, d, pitch)),
  ...[...UNIFIED, ...UNIFIED_FINE].map(([name, d, tpi]) => ({
    name,
    diameterM: d * IN,
    areaM2: stressArea(d * IN, IN / tpi, 0.9743),
  })),
]

/** @throws CannotCompute naming the threads that are known */
export function threadNamed(name: string): Thread {
  const wanted = name
    .trim()
    .toLowerCase()
    .replace(/\s*[x*×]\s*/, '×')
  const found = threads.find((t) => t.name.toLowerCase() === wanted)
  if (!found) {
    throw new CannotCompute(
      'thread-unknown',
      `There is no thread “${name.slice(0, 20)}” here.`,
      `Choose one of ${threads.map((t) => t.name).join(', ')}.`,
    )
  }
  return found
}

import type { Dimension } from './units'

/** Between which values a quantity can be read on site at all, in the SI unit of its dimension. */
export interface QuantityBounds {
  readonly least: number
  readonly most: number
  /** The lower end itself cannot be read either: nothing takes no time. */
  readonly aboveLeast?: boolean
}

const KELVIN = 273.15

/**
 * Bounds of what a technician can read, by quantity. They are wide on purpose: a value outside them is a slip of
 * the pen or of the unit, never equipment. Pressures are bounded by their gauge and by the line as well.
 * Source: physics for the lower ends (no negative count, time, length or volume); for the upper ends ten times
 * what the largest equipment of `FAMILIES` shows.
 */
export const quantityBounds: Readonly<Record<Dimension, QuantityBounds>> = {
  gaugePressure: { least: -101.325, most: 150_000 },
  absolutePressure: { least: 0, most: 150_000 },
  differential: { least: -101.325, most: 150_000 },
  torque: { least: 0, most: 20_000 },
  liquidFlow: { least: 0, most: 5 },
  gasFlow: { least: 0, most: 100 },
  temperature: { least: KELVIN - 60, most: KELVIN + 400 },
  length: { least: 0, most: 10 },
  time: { least: 0, most: 86_400, aboveLeast: true },
  fraction: { least: -0.25, most: 1.5 },
  current: { least: 0, most: 0.025 },
  volume: { least: 0, most: 100 },
  flowCoefficient: { least: 0, most: 100_000, aboveLeast: true },
  gasCoefficient: { least: 0, most: 4_000_000, aboveLeast: true },
  coefficientRatio: { least: 10, most: 60 },
  frequency: { least: 0, most: 1_000 / 6 },
}

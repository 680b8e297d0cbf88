import { type Dimension, isUnitOf, unitsOf } from '../quantity'

/** Quantities that instruments of the trade show, gauges first. */
const shown: readonly Dimension[] = [
  'differential',
  'fraction',
  'frequency',
  'current',
  'temperature',
  'length',
  'volume',
  'liquidFlow',
]

/** The quantity that an instrument with this unit on its scale shows; undefined for a unit that none has. */
export const dimensionShown = (unit: string): Dimension | undefined =>
  shown.find((d) => isUnitOf(d, unit))

/** Every unit that an instrument may have on its scale. */
export const instrumentUnits: readonly string[] = shown.flatMap((d) => unitsOf(d) as string[])

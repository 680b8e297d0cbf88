import type * as yup from 'yup'
import type { AnyQuantity } from '../../quantity'
import { number, slug, strictObject } from '../../schema'
import { usualDigits } from '../plausible'
import { directly, standingReading } from '../measure'
import type { TestRun } from '../types'
import type { Basis } from './basis'
import { inUnit } from './ends'
import { itemFields } from './fields'

const schema = strictObject({
  ...itemFields('percent'),
  /** A nominal value of the equipment, as its set point, or an item that was read before. */
  of: slug().required(),
  /** How far under it the reading may lie, in percent of it; no lower end when absent. */
  below: number(0, 100),
  /** How far over it the reading may lie, in percent of it; no upper end when absent. */
  above: number(0, 1000),
}).test(
  'an-end',
  'a percentage needs “below”, “above” or both',
  (i: { below?: unknown; above?: unknown } | undefined) =>
    !i || i.below !== undefined || i.above !== undefined,
)
type Item = yup.InferType<typeof schema>

/**
 * A reading against a percentage of a nominal value or of another reading, as an accuracy class about
 * the set point or a lock-up class over it (AC and SG of EN 334 are given in percent of the set point).
 */
export const percent: Basis<Item> = {
  schema,
  recorded: true,
  restsOn: (item) => [item.of],
  limit: () => undefined,
  measure: (item, run) => directly(item.id, run),
  ends: (item, run, unit) => {
    const of = nominal(run, item.of)
    if (!of)
      return {
        missing: `${item.of.replaceAll('-', ' ')} is not known, of which it is a percentage`,
      }
    const reading = standingReading(run, item.id)
    if (reading && reading.dimension !== of.dimension)
      return { missing: 'it is of another quantity than what it is a percentage of' }
    const base = inUnit(of, unit)
    return {
      ...(item.below === undefined ? {} : { low: base - (Math.abs(base) * item.below) / 100 }),
      ...(item.above === undefined ? {} : { high: base + (Math.abs(base) * item.above) / 100 }),
      digits: usualDigits(of.dimension, unit),
    }
  },
}

/** A value of that name: of the equipment, else as it was read in this run. */
export const nominal = (run: TestRun, name: string): AnyQuantity | undefined =>
  run.nominals?.[name] ?? standingReading(run, name)

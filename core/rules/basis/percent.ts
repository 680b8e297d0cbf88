import type * as yup from 'yup'
import { number, slug, strictObject } from '../../schema'
import { usualDigits } from '../plausible'
import { nominalFault } from '../../apparatus'
import { because, type Reason } from '../reason'
import type { TestRun } from '../types'
import { directly, standingReading } from '../measure'
import type { Basis } from './basis'
import { inUnit } from './ends'
import { itemFields } from './fields'
import { named, together, unknownBase, valueIn } from './value'

const schema = strictObject({
  ...itemFields('percent'),
  /** A nominal value of the equipment, as its set point, or an item that was read before. */
  of: slug().required(),
  /** How far under it the reading may lie, in percent of it; no lower end when absent. */
  below: number(0, 100),
  /** How far over it the reading may lie, in percent of it, or under it when negative; no upper end when absent. */
  above: number(-100, 1000),
  /** A class of the equipment that takes the place of these percentages, where it has one. */
  belowClass: slug(),
  aboveClass: slug(),
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
  uncertainty: 'readings',
  restsOn: (item) => [item.of],
  limit: () => undefined,
  measure: (item, run) => {
    const own = directly(item.id, run)
    if ('missing' in own) return own
    const { standard: _, ...measured } = own
    const base = valueIn(run, item.of, own.dimension, own.unit)
    // The end moves with what it is a percentage of, and is as uncertain.
    const { below = 0, above = 0 } = percentages(item, run)
    const part = Math.max(1 - below / 100, 1 + above / 100)
    const ofBase = base?.standard === undefined ? undefined : part * base.standard
    const standard = together(own.standard, ofBase)
    return standard === undefined ? measured : { ...measured, standard }
  },
  ends: (item, run, unit) => {
    const of = named(run, item.of)
    if (!of) return { missing: unknownBase(item.of) }
    const reading = standingReading(run, item.id)
    if (reading && reading.dimension !== of.dimension)
      return {
        missing: because(
          'other-quantity',
          'it is of another quantity than what it is a percentage of',
        ),
      }
    const fault = classFault(item, run)
    if (fault) return { missing: fault }
    const base = inUnit(of, unit)
    const { below, above } = percentages(item, run)
    return {
      ...(below === undefined ? {} : { low: base - (Math.abs(base) * below) / 100 }),
      ...(above === undefined ? {} : { high: base + (Math.abs(base) * above) / 100 }),
      digits: usualDigits(of.dimension, unit),
      about: {
        name: item.of,
        value: of.value,
        unit: of.unit,
        ...(below === undefined ? {} : { below }),
        ...(above === undefined ? {} : { above }),
      },
    }
  },
}

/** Why a class of the equipment cannot be one, as an accuracy of 90 %; null where all can. */
function classFault({ belowClass, aboveClass }: Item, run: TestRun): Reason | null {
  for (const name of [belowClass, aboveClass]) {
    const value = name ? run.nominals?.[name] : undefined
    const fault = name && value ? nominalFault(name, value) : null
    if (name && fault) return because('class-out-of-range', fault, { name })
  }
  return null
}

/** The percentages of the equipment’s own classes, else those of the pack. */
function percentages({ below, above, belowClass, aboveClass }: Item, run: TestRun) {
  const own = (name: string | undefined, usual: number | undefined) => {
    const value = name ? run.nominals?.[name] : undefined
    return value?.dimension === 'fraction' ? inUnit(value, '%') : usual
  }
  return { below: own(belowClass, below), above: own(aboveClass, above) }
}

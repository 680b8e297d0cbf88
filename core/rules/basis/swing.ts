import type * as yup from 'yup'
import { roundTo, unitDefinition } from '../../quantity'
import { number, slug, strictObject } from '../../schema'
import { standingReading } from '../measure'
import type { Basis } from './basis'
import { inUnit } from './ends'
import { itemFields } from './fields'
import { named } from './value'

const schema = strictObject({
  ...itemFields('swing'),
  /** The reading during which the needle was watched. */
  reading: slug().required(),
  /** The swing from trough to crest that is accepted, in percent of `of`. */
  percent: number(0, 100).required(),
  /** A nominal value of the equipment, or another reading. */
  of: slug().required(),
})
type Item = yup.InferType<typeof schema>

/** How widely the needle swung during a reading, from its trace: hunting. */
export const swing: Basis<Item> = {
  schema,
  recorded: false,
  restsOn: (item) => [item.reading, item.of],
  limit: () => undefined,
  measure: (item, run) => {
    const reading = standingReading(run, item.reading)
    if (!reading) return { missing: 'not recorded yet' }
    const { swing: value, dimension, unit } = reading
    if (value === undefined)
      return { missing: 'how widely it swings was not recorded: watch it on the trace for 10 s' }
    const digits = unitDefinition(dimension, unit).digits + 1
    return { value, text: roundTo(value, digits), dimension, unit, digits }
  },
  ends: (item, run, unit) => {
    const of = named(run, item.of)
    const reading = standingReading(run, item.reading)
    if (!of || (reading && reading.dimension !== of.dimension))
      return {
        missing: `${item.of.replaceAll('-', ' ')} is not known, of which it is a percentage`,
      }
    return {
      high: (Math.abs(inUnit(of, unit)) * item.percent) / 100,
      digits: unitDefinition(of.dimension, unit).digits + 1,
    }
  },
}

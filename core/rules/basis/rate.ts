import type * as yup from 'yup'
import { anyQuantity, strictObject } from '../../schema'
import { unitDefinition } from '../../quantity'
import { standingReading } from '../measure'
import type { Basis } from './basis'
import { digitsIn, inUnit } from './ends'
import { itemFields } from './fields'

const schema = strictObject({
  ...itemFields('rate'),
  /** The change in a minute that is still accepted, rising or falling. */
  atMost: anyQuantity().required(),
})
type Item = yup.InferType<typeof schema>

/** How fast a reading still moves, from its trace: creep at lock-up, a slow leak. */
export const rate: Basis<Item> = {
  schema,
  recorded: true,
  restsOn: () => [],
  limit: (item) => item.atMost,
  measure: (item, run) => {
    const reading = standingReading(run, item.id)
    if (!reading) return { missing: 'not recorded yet' }
    const { driftPerMinute: drift, dimension, unit } = reading
    if (drift === undefined)
      return { missing: 'how fast it moves was not recorded: hold it, and read it from the trace' }
    const digits = unitDefinition(dimension, unit).digits + 1
    const value = Math.abs(drift)
    return { value, text: value.toFixed(digits), dimension, unit, digits, perMinute: true }
  },
  ends: (item, _run, unit) => ({
    high: inUnit(item.atMost, unit),
    digits: digitsIn(item.atMost, unit),
  }),
}

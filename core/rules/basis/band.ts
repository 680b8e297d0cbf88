import type * as yup from 'yup'
import { anyQuantity, strictObject } from '../../schema'
import { type AnyQuantity, toSi } from '../../quantity'
import { directly } from '../measure'
import type { Basis } from './basis'
import { digitsIn, inUnit } from './ends'
import { itemFields } from './fields'

const schema = strictObject({
  ...itemFields('band'),
  from: anyQuantity().required(),
  to: anyQuantity().required(),
}).test(
  'in-order',
  'a band runs from its lower to its upper end, both of one quantity',
  (i: { from?: AnyQuantity; to?: AnyQuantity } | undefined) =>
    !i?.from || !i.to || (i.from.dimension === i.to.dimension && toSi(i.from) < toSi(i.to)),
)
type Item = yup.InferType<typeof schema>

/** A reading between two ends, as a set pressure in its tolerance. */
export const band: Basis<Item> = {
  schema,
  recorded: true,
  uncertainty: 'readings',
  restsOn: () => [],
  limit: (item) => item.from,
  measure: (item, run) => directly(item.id, run),
  ends: (item, _run, unit) => ({
    low: inUnit(item.from, unit),
    high: inUnit(item.to, unit),
    digits: Math.max(digitsIn(item.from, unit), digitsIn(item.to, unit)),
  }),
}

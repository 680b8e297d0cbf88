import type * as yup from 'yup'
import { slug, strictObject } from '../../schema'
import { differenceOf } from '../measure'
import type { Basis } from './basis'
import { oneEnd } from './ends'
import { hasOneEnd, itemFields, oneSided } from './fields'

const schema = strictObject({
  ...itemFields('difference'),
  ...oneSided(),
  minuend: slug().required(),
  subtrahend: slug().required(),
}).test('one-end', 'a difference needs one of atLeast and atMost', hasOneEnd)
type Item = yup.InferType<typeof schema>

/** One reading less another against one end. */
export const difference: Basis<Item> = {
  schema,
  recorded: false,
  uncertainty: 'readings',
  restsOn: (item) => [item.minuend, item.subtrahend],
  limit: (item) => item.atLeast ?? item.atMost,
  measure: (item, run) => differenceOf(item.minuend, item.subtrahend, run),
  ends: (item, _run, unit) => oneEnd(item, unit),
}

import type * as yup from 'yup'
import { strictObject } from '../../schema'
import { directly } from '../measure'
import type { Basis } from './basis'
import { oneEnd } from './ends'
import { hasOneEnd, itemFields, oneSided } from './fields'

const schema = strictObject({ ...itemFields('limit'), ...oneSided() }).test(
  'one-end',
  'a limit needs one of atLeast and atMost',
  hasOneEnd,
)
type Item = yup.InferType<typeof schema>

/** A reading against one end. */
export const limit: Basis<Item> = {
  schema,
  recorded: true,
  uncertainty: 'readings',
  restsOn: () => [],
  limit: (item) => item.atLeast ?? item.atMost,
  measure: (item, run) => directly(item.id, run),
  ends: (item, _run, unit) => oneEnd(item, unit),
}

import * as yup from 'yup'
import { convertValue, roundTo } from '../../quantity'
import { anyQuantity, slug, strictObject } from '../../schema'
import { differenceOf } from '../measure'
import { because } from '../reason'
import type { Basis } from './basis'
import { digitsIn, inUnit } from './ends'
import { itemFields } from './fields'

const schema = strictObject({
  ...itemFields('spread'),
  /** Two readings each of what should be the same, as the travel at one signal going up and down. */
  pairs: yup
    .array(yup.array(slug().required()).strict(true).length(2).required())
    .strict(true)
    .min(1)
    .max(20)
    .required(),
  atMost: anyQuantity().required(),
})
type Item = yup.InferType<typeof schema>

/** The largest difference within pairs of readings: hysteresis and dead band (IEC 61298-2). */
export const spread: Basis<Item> = {
  schema,
  recorded: false,
  uncertainty: 'readings',
  restsOn: (item) => item.pairs.flat(),
  limit: (item) => item.atMost,
  measure: (item, run) => {
    const gaps = item.pairs.map(([a = '', b = '']) => differenceOf(a, b, run))
    const known = gaps.flatMap((g) => ('missing' in g ? [] : [g]))
    if (known.length < gaps.length)
      return { missing: because('needs-readings', 'needs a reading at every point, both ways') }
    const widest = known.reduce((a, b) => (Math.abs(b.value) > Math.abs(a.value) ? b : a))
    const { dimension, unit } = item.atMost
    if (widest.dimension !== dimension)
      return { missing: because('other-quantity', 'its readings are of another quantity') }
    const at = (v: number) => convertValue(dimension, v, widest.unit, unit)
    const value = Math.abs(at(widest.value) - at(0))
    const digits = Math.max(widest.digits, digitsIn(item.atMost, unit))
    return {
      value,
      text: roundTo(value, digits),
      dimension,
      unit,
      digits,
      ...(widest.standard === undefined ? {} : { standard: at(widest.standard) - at(0) }),
    }
  },
  ends: (item, _run, unit) => ({
    high: inUnit(item.atMost, unit),
    digits: digitsIn(item.atMost, unit),
  }),
}

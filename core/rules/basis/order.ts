import * as yup from 'yup'
import { roundTo } from '../../quantity'
import { anyQuantity, slug, strictObject } from '../../schema'
import { because } from '../reason'
import type { Basis } from './basis'
import { digitsIn, inUnit } from './ends'
import { itemFields } from './fields'
import { together, valueIn } from './value'

const schema = strictObject({
  ...itemFields('order'),
  /** Readings or nominal values from the lowest to the highest, as set, lock-up, monitor, relief. */
  ascending: yup.array(slug().required()).strict(true).min(2).max(12).required(),
  /** How far neighbours lie apart at least; a negative distance may overlap by so much. */
  apart: anyQuantity().required(),
})
type Item = yup.InferType<typeof schema>

/** Values in order and apart: the smallest distance between neighbours against one end. */
export const order: Basis<Item> = {
  schema,
  recorded: false,
  uncertainty: 'readings',
  restsOn: (item) => item.ascending,
  limit: (item) => item.apart,
  measure: (item, run) => {
    const { dimension, unit } = item.apart
    const values = item.ascending.map((name) => valueIn(run, name, dimension, unit))
    const absent = item.ascending.filter((_, n) => values[n] === null)
    if (absent.length > 0)
      return {
        missing: because(
          'needs-readings',
          `needs ${absent.map((a) => a.replaceAll('-', ' ')).join(', ')}`,
          { items: absent.join(' ') },
        ),
      }
    const known = values.flatMap((v) => v ?? [])
    const gaps = known.slice(1).map((upper, n) => ({
      gap: upper.value - (known[n]?.value ?? 0),
      standard: together(upper.standard, known[n]?.standard),
    }))
    const { gap, standard } = gaps.reduce((a, b) => (b.gap < a.gap ? b : a))
    const digits = Math.max(...known.map((v) => v.digits), digitsIn(item.apart, unit))
    return {
      value: gap,
      text: roundTo(gap, digits),
      dimension,
      unit,
      digits,
      ...(standard === undefined ? {} : { standard }),
    }
  },
  ends: (item, _run, unit) => ({
    low: inUnit(item.apart, unit),
    digits: digitsIn(item.apart, unit),
  }),
}

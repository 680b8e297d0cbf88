import * as yup from 'yup'
import { roundTo } from '../../quantity'
import { anyQuantity, slug, strictObject } from '../../schema'
import { measure } from '../measure'
import { channelFor } from '../channel'
import type { Basis } from './basis'
import { digitsIn, inUnit } from './ends'
import { itemFields } from './fields'
import { nominal } from './percent'

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
  restsOn: (item) => item.ascending,
  limit: (item) => item.apart,
  measure: (item, run) => {
    const { dimension, unit } = item.apart
    const values = item.ascending.map((name) => {
      const value = nominal(run, name)
      if (!value || value.dimension !== dimension) return null
      const measured = measure({ ...value, item: name }, channelFor(run, value))
      return { value: inUnit({ ...value, value: String(measured.value) }, unit), measured }
    })
    const absent = item.ascending.filter((_, n) => values[n] === null)
    if (absent.length > 0)
      return { missing: `needs ${absent.map((a) => a.replaceAll('-', ' ')).join(', ')}` }
    const known = values.flatMap((v) => v ?? [])
    const gaps = known.slice(1).map((v, n) => ({
      gap: v.value - (known[n]?.value ?? 0),
      standard: Math.hypot(v.measured.standard ?? NaN, known[n]?.measured.standard ?? NaN),
    }))
    const least = gaps.reduce((a, b) => (b.gap < a.gap ? b : a))
    const digits = Math.max(...known.map((v) => v.measured.digits), digitsIn(item.apart, unit))
    return {
      value: least.gap,
      text: roundTo(least.gap, digits),
      dimension,
      unit,
      digits,
      ...(Number.isNaN(least.standard) ? {} : { standard: least.standard }),
    }
  },
  ends: (item, _run, unit) => ({
    low: inUnit(item.apart, unit),
    digits: digitsIn(item.apart, unit),
  }),
}

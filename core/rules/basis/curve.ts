import * as yup from 'yup'
import { convertValue, parseDisplayed, roundTo } from '../../quantity'
import { anyQuantity, displayed, slug, strictObject } from '../../schema'
import { measure, standingReading } from '../measure'
import { channelFor } from '../channel'
import { because } from '../reason'
import type { Basis } from './basis'
import { digitsIn, inUnit } from './ends'
import { itemFields } from './fields'

const schema = strictObject({
  ...itemFields('curve'),
  /** Items that were read point by point, each with what it should be, in the unit of `atMost`. */
  points: yup
    .array(strictObject({ item: slug().required(), ideal: displayed().required() }).required())
    .strict(true)
    .min(2)
    .max(50)
    .required(),
  /** The largest error that is accepted at any point. */
  atMost: anyQuantity().required(),
})
type Item = yup.InferType<typeof schema>

/** The worst error of several readings about their ideal values, as travel against signal. */
export const curve: Basis<Item> = {
  schema,
  recorded: false,
  uncertainty: 'readings',
  restsOn: (item) => item.points.map((p) => p.item),
  limit: (item) => item.atMost,
  measure: (item, run) => {
    const { dimension, unit } = item.atMost
    const errors = item.points.map(({ item: id, ideal }) => {
      const reading = standingReading(run, id)
      if (!reading || reading.dimension !== dimension) return null
      const measured = measure(reading, channelFor(run, reading))
      const at = (value: number) => convertValue(dimension, value, reading.unit, unit)
      return { measured, error: Math.abs(at(measured.value) - parseDisplayed(ideal)), at }
    })
    const needs = because('needs-readings', 'needs a reading at every point')
    if (errors.some((e) => e === null)) return { missing: needs }
    const worst = errors.reduce((a, b) => ((b?.error ?? 0) > (a?.error ?? 0) ? b : a))
    if (!worst) return { missing: needs }
    const { measured, error, at } = worst
    const digits = Math.max(measured.digits, digitsIn(item.atMost, unit))
    return {
      value: error,
      text: roundTo(error, digits),
      dimension,
      unit,
      digits,
      ...(measured.standard === undefined ? {} : { standard: at(measured.standard) - at(0) }),
    }
  },
  ends: (item, _run, unit) => ({
    high: inUnit(item.atMost, unit),
    digits: digitsIn(item.atMost, unit),
  }),
}

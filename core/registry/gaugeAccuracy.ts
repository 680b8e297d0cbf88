import * as yup from 'yup'
import type { Channel, GaugeAccuracy } from '../rules'
import { number, strictObject, unitField } from '../schema'

/** What a gauge’s certificate says, as an input: percent of span or of reading, and the span. */
export const gaugeAccuracy = () =>
  strictObject({
    percent: number(0, 100).required(),
    of: yup
      .string()
      .strict(true)
      .oneOf(['span', 'reading'] as const)
      .required(),
    span: number(0, 1e6).required(),
    unit: unitField('differential').required(),
  })

/** A differential gauge as the one channel of a run. */
export const asChannel = (accuracy: GaugeAccuracy): Channel => ({
  id: 'gauge',
  dimension: 'differential',
  ...accuracy,
})

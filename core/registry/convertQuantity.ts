import * as yup from 'yup'
import {
  convertValue,
  type Dimension,
  dimensionNames,
  isUnitOf,
  unitsOf,
  parseDisplayed,
  roundTo,
  unitDefinition,
  valueToSi,
} from '../quantity'
import { displayed, line, strictObject } from '../schema'
import { CannotCompute } from '../errors'
import { computation } from './computation'

/** Nothing of these is less than nothing. */
const FROM_ZERO: readonly Dimension[] = ['absolutePressure', 'temperature']

const input = strictObject({
  dimension: yup.string<Dimension>().strict(true).oneOf(dimensionNames).required(),
  value: displayed().required(),
  unit: line(12).required(),
  to: line(12).required(),
})

const output = strictObject({
  dimension: yup.string<Dimension>().required(),
  value: displayed().required(),
  unit: line(12).required(),
  exact: yup.number().required(),
})

export const convertQuantity = computation({
  name: 'convert-quantity',
  title: 'Convert a quantity',
  summary: 'The same quantity in another unit of its dimension; a pressure never becomes a torque.',
  source: 'NIST SP 811 (2008), appendix B',
  input,
  output,
  example: { dimension: 'differential', value: '5.4', unit: 'psi', to: 'kPa' },
  run({ dimension, value, unit, to }) {
    for (const u of [unit, to]) {
      if (!isUnitOf(dimension, u)) {
        const owner = dimensionNames.find((d) => isUnitOf(d, u))
        throw new CannotCompute(
          'unit-unknown',
          `${u} is ${owner ? `a unit of ${owner}` : 'not a known unit'}, not of ${dimension}.`,
          `Choose one of ${unitsOf(dimension).join(', ')}.`,
        )
      }
    }
    const si = valueToSi(dimension, parseDisplayed(value), unit)
    if (FROM_ZERO.includes(dimension) && si < 0) {
      throw new CannotCompute(
        'below-absolute-zero',
        `${value} ${unit} lies below absolute zero.`,
        'Is it a gauge pressure, or another scale?',
      )
    }
    const exact = convertValue(dimension, parseDisplayed(value), unit, to)
    return {
      dimension,
      value: roundTo(exact, unitDefinition(dimension, to).digits),
      unit: to,
      exact,
    }
  },
})

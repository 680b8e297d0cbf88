import * as yup from 'yup'
import { CannotCompute } from '../errors'
import { number, strictObject } from '../schema'
import { gasFlow, waterFlow } from '../sizing'
import { computation } from './computation'
import { EXAMPLE_GAS, gasInput } from './gasFields'

/** Where a sheet gives no pressure drop ratio: that of a globe body (IEC 60534-2-1). */
const USUAL_XT = 0.7

export const neededCv = computation({
  name: 'needed-cv',
  title: 'Flow coefficient needed',
  summary: 'The Cv that a valve must have to pass a flow of water or gas at stated pressures.',
  source: 'IEC 60534-2-1: flow is proportional to Cv at given pressures; a globe body has xT 0.7.',
  input: strictObject({
    flowM3h: number(1e-6, 1e7).required(),
    inletKpa: number(-101, 50_000).required(),
    outletKpa: number(-101, 50_000).required(),
    /** Absent for water; the flow of a gas is at standard conditions. */
    gas: gasInput().default(undefined).optional(),
    xT: number(0.05, 1),
    temperatureK: number(200, 500),
  }),
  output: yup.object({ cv: yup.number().required() }),
  example: { flowM3h: 400, inletKpa: 700, outletKpa: 200, gas: EXAMPLE_GAS },
  run({ flowM3h, inletKpa, outletKpa, gas, xT = USUAL_XT, temperatureK = 288.15 }) {
    const perCv = gas
      ? gasFlow({ valve: { cv: 1, xT }, gas, inletKpa, outletKpa }).sm3h
      : waterFlow({ cv: 1, inletKpa, outletKpa, temperatureK }).m3h
    if (perCv <= 0)
      throw new CannotCompute(
        'nothing-drops',
        'Nothing flows: both pressures are the same.',
        'Give an inlet above the outlet.',
      )
    return { cv: flowM3h / perCv }
  },
})

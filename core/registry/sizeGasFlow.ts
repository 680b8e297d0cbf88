import * as yup from 'yup'
import { number, strictObject } from '../schema'
import { gasFlow, type GasFlowAsked } from '../sizing'
import { computation } from './computation'
import { EXAMPLE_GAS, flowOutput, gasInput, valveInput } from './gasFields'

export const sizeGasFlow = computation({
  name: 'size-gas-flow',
  title: 'Gas through a valve',
  summary:
    'Flow of gas through a regulator, relief or valve at stated pressures, by the coefficients of its sheet; two pairs check each other.',
  source:
    'IEC 60534-2-1 expansion method; Cg and C1: q = √(520/(G·T))·Cg·p1·sin((3417/C1)·√(Δp/p1)), held at 90°.',
  input: strictObject({
    valve: valveInput().required(),
    gas: gasInput().required(),
    inletKpa: number(-101, 50_000).required(),
    outletKpa: number(-101, 50_000).required(),
  }),
  output: yup.object({
    sm3h: flowOutput(),
    choked: yup.boolean().required(),
    by: yup.string().required(),
    other: yup.object().default(undefined).optional(),
    questions: yup.array().required(),
  }),
  example: {
    valve: { cv: 10, xT: 0.7, cg: 332, c1: 33.3 },
    gas: EXAMPLE_GAS,
    inletKpa: 700,
    outletKpa: 200,
  },
  run: (input) => gasFlow(input as GasFlowAsked),
})

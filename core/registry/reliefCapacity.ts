import * as yup from 'yup'
import { number, strictObject } from '../schema'
import { reliefCapacity as capacityOf, type ReliefAsked } from '../sizing'
import { computation } from './computation'
import { coefficients, EXAMPLE_GAS, flowOutput, gasInput, valveInput } from './gasFields'

export const reliefCapacity = computation({
  name: 'relief-capacity',
  title: 'Relief against its regulator',
  summary:
    'Whether a relief holds the pressure when the regulator fails wide open at the highest inlet: both curves, the pressure at which they balance, the margin at the limit, and what limits it.',
  source:
    'Both flows by IEC 60534-2-1 or Cg and C1; lift in proportion between start-to-discharge and full lift; balance by bisection.',
  input: strictObject({
    regulator: valveInput().required(),
    inletMaximumKpa: number(0.1, 50_000).required(),
    relief: strictObject({
      ...coefficients,
      startKpa: number(0.01, 50_000).required(),
      fullKpa: number(0.01, 50_000).required(),
    }).required(),
    limitKpa: number(0.01, 50_000).required(),
    gas: gasInput().required(),
  }),
  output: yup.object({
    balanceKpa: flowOutput(),
    balanceSm3h: flowOutput(),
    inflowSm3h: flowOutput(),
    capacitySm3h: flowOutput(),
    marginPercent: flowOutput(),
    holds: yup.boolean().required(),
    limitKpa: flowOutput(),
    limitedBy: yup.string().required(),
    curve: yup.array().required(),
  }),
  example: {
    regulator: { cv: 1.2, xT: 0.7 },
    inletMaximumKpa: 700,
    relief: { cv: 12, xT: 0.7, startKpa: 45, fullKpa: 60 },
    limitKpa: 70,
    gas: EXAMPLE_GAS,
  },
  run: (input) => capacityOf(input as ReliefAsked),
})

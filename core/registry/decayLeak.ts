import * as yup from 'yup'
import { number, strictObject } from '../schema'
import { type DecayAsked, decayLeak as leakOf } from '../sizing'
import { computation } from './computation'

const reading = () =>
  strictObject({ kpa: number(0.01, 1e5).required(), kelvin: number(150, 500).required() })

export const decayLeak = computation({
  name: 'decay-leak',
  title: 'Leak from a falling pressure',
  summary:
    'What leaks out of a shut-in space, corrected for temperature, with its uncertainty; a hold that is too short to tell says so.',
  source:
    'Q = V/Δt·(p₁/T₁ − p₂/T₂)·T_std/p_std at 15 °C and 101.325 kPa; uncertainty JCGM 100:2008.',
  input: strictObject({
    volumeM3: number(1e-9, 1e5).required(),
    seconds: number(1, 1e6).required(),
    first: reading().required(),
    last: reading().required(),
    pressureU: number(0, 1000).required(),
    temperatureU: number(0, 20).required(),
    allowedMlMin: number(0.001, 1e6).required(),
  }),
  output: yup.object({
    leakMlMin: yup.number().required(),
    expandedMlMin: yup.number().required(),
    outcome: yup.string().required(),
    says: yup.string().required(),
  }),
  example: {
    volumeM3: 0.002,
    seconds: 600,
    first: { kpa: 501.3, kelvin: 288.2 },
    last: { kpa: 500.8, kelvin: 288.6 },
    pressureU: 0.05,
    temperatureU: 0.1,
    allowedMlMin: 10,
  },
  run: (input) => leakOf(input as DecayAsked),
})

import * as yup from 'yup'
import { number, strictObject } from '../schema'
import { waterFlow, type WaterFlowAsked } from '../sizing'
import { computation } from './computation'

export const sizeWaterFlow = computation({
  name: 'size-water-flow',
  title: 'Water through a valve',
  summary:
    'Flow of water through a valve at stated pressures, its cavitation index, and whether it cavitates by the index of the sheet.',
  source:
    'q = Cv·√(Δp/SG), IEC 60534-2-1; σ = (p1 − pv)/(p1 − p2); vapour pressure by Antoine’s equation.',
  input: strictObject({
    cv: number(1e-4, 1e5).required(),
    inletKpa: number(-101, 50_000).required(),
    outletKpa: number(-101, 50_000).required(),
    temperatureK: number(200, 500).required(),
    sigmaIncipient: number(0.5, 20),
  }),
  output: yup.object({
    m3h: yup.number().required(),
    sigma: yup.number().nullable().defined(),
    vapourKpa: yup.number().required(),
    cavitates: yup.boolean().nullable().defined(),
    flashes: yup.boolean().required(),
  }),
  example: { cv: 30, inletKpa: 700, outletKpa: 350, temperatureK: 283.15, sigmaIncipient: 1.9 },
  run: (input) => waterFlow(input as WaterFlowAsked),
})

import * as yup from 'yup'
import {
  type Gland,
  glandFit as fitOf,
  identifyOring as identify,
  type MeasuredRing,
} from '../craft'
import { number, strictObject } from '../schema'
import { computation } from './computation'

export const identifyOring = computation({
  name: 'identify-oring',
  title: 'Identify an O-ring',
  summary: 'The standard sizes a measured ring can be, likeliest first, and what to measure next.',
  source: 'Sizes of AS568, in millimetres as in ISO 3601-1; tolerances ISO 3601-1 class B.',
  input: strictObject({
    insideMm: number(0.1, 2000),
    sectionMm: number(0.1, 50),
    errorMm: number(0, 5),
  }),
  output: yup.object({ matches: yup.array().required() }),
  example: { insideMm: 18.6, sectionMm: 3.5 },
  run: (input) => identify(input as MeasuredRing),
})

export const glandFit = computation({
  name: 'gland-fit',
  title: 'Fit a ring to its gland',
  summary: 'Squeeze, stretch and fill of an O-ring in its groove, and what is out of the ordinary.',
  source:
    'Design practice of ISO 3601-2: squeeze by use, stretch under about 5 %, fill under 85 %.',
  input: strictObject({
    ring: strictObject({
      insideMm: number(0.1, 2000).required(),
      sectionMm: number(0.1, 50).required(),
    }).required(),
    depthMm: number(0.1, 50).required(),
    widthMm: number(0.1, 100).required(),
    floorMm: number(0.1, 2000).required(),
    use: yup
      .string()
      .strict(true)
      .oneOf(['static', 'moving'] as const)
      .required(),
  }),
  output: yup.object({
    squeezePercent: yup.number().required(),
    stretchPercent: yup.number().required(),
    fillPercent: yup.number().required(),
    says: yup.array().required(),
  }),
  example: {
    ring: { insideMm: 34.52, sectionMm: 3.53 },
    depthMm: 2.8,
    widthMm: 4.8,
    floorMm: 35,
    use: 'static',
  },
  run: (input) => fitOf(input as Gland),
})

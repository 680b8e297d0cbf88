import * as yup from 'yup'
import { number, strictObject } from '../schema'
import { benchSet as benchSetOf } from '../stroke'
import { computation } from './computation'

const pressure = () => number(0, 5_000).required()

export const benchSet = computation({
  name: 'bench-set',
  title: 'Bench set and friction',
  summary:
    'The spring of an actuator from its pressures at first movement and full travel, both ways; what friction takes, and how far it is set from its plate.',
  source:
    'Force balance of spring, pressure and friction: the spring is the mean of both directions.',
  input: strictObject({
    firstUpKpa: pressure(),
    fullUpKpa: pressure(),
    firstDownKpa: pressure(),
    fullDownKpa: pressure(),
    plateLowKpa: number(0, 5_000),
    plateHighKpa: number(0, 5_000),
  }),
  output: yup.object({
    lowKpa: yup.number().required(),
    highKpa: yup.number().required(),
    frictionStartKpa: yup.number().required(),
    frictionFullKpa: yup.number().required(),
    frictionKpa: yup.number().required(),
    frictionPercent: yup.number().required(),
    shiftKpa: yup.number().nullable().defined(),
  }),
  example: {
    firstUpKpa: 44,
    fullUpKpa: 210,
    firstDownKpa: 198,
    fullDownKpa: 32,
    plateLowKpa: 41,
    plateHighKpa: 207,
  },
  run: (input) => benchSetOf(input),
})

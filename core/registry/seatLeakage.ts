import * as yup from 'yup'
import { number, strictObject } from '../schema'
import { leakageClasses, seatAllowance, type SeatAsked } from '../sizing'
import { computation } from './computation'

export const seatLeakage = computation({
  name: 'seat-leakage',
  title: 'What a seat may leak',
  summary:
    'The leakage that a class allows a shut valve, in the medium that the class is tested with.',
  source: 'IEC 60534-4: II 0.5 %, III 0.1 %, IV 0.01 % of rated; V by port and drop; VI by port.',
  input: strictObject({
    leakageClass: yup.string().strict(true).oneOf(leakageClasses).required(),
    ratedMlMin: number(0.001, 1e9),
    portIn: number(0.1, 40),
    dropPsi: number(0.1, 10_000),
  }),
  output: yup.object({
    mlMin: yup.number().required(),
    bubblesMin: yup.number(),
    medium: yup.string().required(),
  }),
  example: { leakageClass: 'VI', portIn: 2 },
  run: (input) => seatAllowance(input as SeatAsked),
})

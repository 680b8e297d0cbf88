import * as yup from 'yup'
import { boltPlan, type BoltRing } from '../craft'
import { integer, number, strictObject } from '../schema'
import { computation } from './computation'

const bolts = () => yup.array(integer(1, 96).required()).strict(true).max(96)

export const boltPattern = computation({
  name: 'bolt-pattern',
  title: 'Plan a bolt pattern',
  summary:
    'The order in which the bolts of a circle are tightened, pass by pass, from any start bolt.',
  source:
    'Repeated halving of the circle, each bolt followed by the one opposite; practice of the trade.',
  input: strictObject({
    count: integer(2, 96).required(),
    start: integer(1, 96),
    first: bolts(),
    last: bolts(),
    holdBack: bolts(),
    passes: yup.array(number(0.01, 1).required()).strict(true).min(1).max(6),
  }),
  output: yup.object({ passes: yup.array().required(), untilNoneMoves: yup.array().required() }),
  example: { count: 8, start: 1 },
  run: (input) => boltPlan(input as BoltRing),
})

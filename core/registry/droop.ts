import * as yup from 'yup'
import { number, strictObject } from '../schema'
import { computation } from './computation'

const pressure = () => number(0.001, 150_000).required()

export const droop = computation({
  name: 'droop',
  title: 'Droop and lock-up in percent of the set pressure',
  summary:
    'By how much the outlet of a regulator falls under load and rises at lock-up, in percent of its set pressure.',
  source: 'EN 334: droop and lock-up are stated in percent of the set pressure.',
  input: strictObject({
    setKpa: pressure(),
    loadKpa: number(0, 150_000).required(),
    lockUpKpa: number(0, 150_000),
  }),
  output: yup.object({
    droopPercent: yup.number().required(),
    lockUpPercent: yup.number(),
  }),
  example: { setKpa: 420, loadKpa: 390, lockUpKpa: 432 },
  run({ setKpa, loadKpa, lockUpKpa }) {
    const percent = (kpa: number) => (kpa / setKpa) * 100
    return {
      droopPercent: percent(setKpa - loadKpa),
      ...(lockUpKpa === undefined ? {} : { lockUpPercent: percent(lockUpKpa - setKpa) }),
    }
  },
})

import * as yup from 'yup'
import { drift } from '../drift'
import { CannotCompute } from '../errors'
import { localDate, number, strictObject } from '../schema'
import { computation } from './computation'

export const driftOf = computation({
  name: 'drift',
  title: 'Drift from test to test',
  summary:
    'How fast a value drifts between tests, how sure that is, what it is expected to read at the next date, and how likely it is to be out of its limits then.',
  source:
    'Weighted least squares with one rate and a level of its own from each setting on (Draper & Smith, Applied Regression Analysis, 14); Student’s distribution, Abramowitz & Stegun 26.7.',
  input: strictObject({
    tests: yup
      .array(
        strictObject({
          date: localDate().required(),
          asFound: number(-1e6, 1e6),
          asLeft: number(-1e6, 1e6),
          standard: number(0, 1e6),
        }).required(),
      )
      .strict(true)
      .min(2)
      .max(200)
      .required(),
    nextOn: localDate().required(),
    low: number(-1e6, 1e6),
    high: number(-1e6, 1e6),
  }),
  output: yup.object({
    intervals: yup.number().required(),
    perYear: yup.number().required(),
    within: yup.number(),
    expected: yup.number().required(),
    chanceOut: yup.number(),
    isTooLittle: yup.boolean().required(),
  }),
  example: {
    tests: [
      { date: '2023-05-02', asFound: 60.4 },
      { date: '2024-05-06', asFound: 59.7 },
      { date: '2025-04-28', asFound: 58.9 },
    ],
    nextOn: '2026-05-01',
    low: 57,
    high: 63,
  },
  run({ tests, nextOn, low, high }) {
    const oldestFirst = [...tests].sort((a, b) => a.date.localeCompare(b.date))
    const found = drift(oldestFirst, nextOn, { low, high })
    if (!found)
      throw new CannotCompute(
        'drift-too-little',
        'No two tests lie a month apart.',
        'Give tests of at least two dates, with what was found.',
      )
    return found
  },
})

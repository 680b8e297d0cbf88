import * as yup from 'yup'
import { integer, number, strictObject } from '../schema'
import { judgeStroke, type StrokeAsked } from '../stroke'
import { computation } from './computation'

const way = yup
  .string()
  .strict(true)
  .oneOf(['up', 'down'] as const)
const figure = () => yup.number().nullable().defined()

export const judgeStrokeTest = computation({
  name: 'judge-stroke-test',
  title: 'Judge a stroke test',
  summary:
    'Zero, span, widest error, hysteresis with dead band, linearity and repeatability of a valve stroked up and down, and what is adjusted first.',
  source:
    'Terms of IEC 61298-2: errors, hysteresis, terminal-based linearity of the mean of up and down, and of the way up alone, in percent of span.',
  input: strictObject({
    points: yup
      .array(
        strictObject({
          way: way.required(),
          signal: number(-20, 120).required(),
          travel: number(-20, 120).required(),
          cycle: integer(1, 20),
        }).required(),
      )
      .strict(true)
      .min(1)
      .max(200)
      .required(),
    action: yup
      .string()
      .strict(true)
      .oneOf(['direct', 'reverse'] as const)
      .required(),
    tolerance: number(0.05, 20).required(),
  }),
  output: yup.object({
    outcome: yup.string().required(),
    zeroError: figure(),
    spanError: figure(),
    worstError: yup.number().required(),
    worstAt: yup.object().required(),
    hysteresis: figure(),
    linearity: figure(),
    linearityUp: figure(),
    repeatability: figure(),
    says: yup.string().required(),
  }),
  example: {
    action: 'direct',
    tolerance: 1,
    points: [
      { way: 'up', signal: 0, travel: 0.2 },
      { way: 'up', signal: 50, travel: 50.6 },
      { way: 'up', signal: 100, travel: 100.1 },
      { way: 'down', signal: 50, travel: 50.9 },
      { way: 'down', signal: 0, travel: 0.3 },
    ],
  },
  run: (input) => judgeStroke(input as StrokeAsked),
})

import * as yup from 'yup'
import { number, numberList, strictObject } from '../schema'
import { analyseTrace as analyse } from '../trace'
import { computation } from './computation'

/** Half an hour of a gauge that samples ten times a second; a request of more is refused. */
const MOST_SAMPLES = 20_000

const input = strictObject({
  values: numberList(MOST_SAMPLES).required(),
  periodS: number(0.0001, 10).required(),
  resolution: number(1e-9, 1e6).required(),
  span: number(1e-9, 1e9),
})

const output = yup.object({
  samples: yup.number().required(),
  durationS: yup.number().required(),
  noise: yup.number().required(),
  plateaus: yup.array().required(),
  openings: yup.array().required(),
  doubts: yup.array().required(),
})

export const analyseTrace = computation({
  name: 'analyse-trace',
  title: 'Analyse a gauge trace',
  summary:
    'Where a trace rests, with deviation and drift; where something opened; the lag; and what makes it doubtful.',
  source: 'Block statistics and straight lines through block means; a lost sample is null.',
  input,
  output: output as yup.Schema<unknown>,
  example: {
    values: Array.from({ length: 40 }, (_, n) => (n < 20 ? 2 : 7.6)),
    periodS: 0.1,
    resolution: 0.1,
  },
  run: ({ values, periodS, resolution, span }) =>
    analyse(
      Float64Array.from(values, (v) => v ?? NaN),
      { periodS, resolution, ...(span === undefined ? {} : { span }) },
    ),
})

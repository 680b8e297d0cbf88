import * as yup from 'yup'
import { compressionSet } from '../craft'
import { number, strictObject } from '../schema'
import { computation } from './computation'

const millimeters = () => number(0.1, 100).required()

export const compressionSetOf = computation({
  name: 'compression-set',
  title: 'Compression set of a ring',
  summary: 'How much of its squeeze a ring has kept for good, and whether it goes back in.',
  source: 'ASTM D395 method B: (original − recovered) ÷ (original − compressed).',
  input: strictObject({
    originalMm: millimeters(),
    compressedMm: millimeters(),
    recoveredMm: millimeters(),
  }),
  output: yup.object({
    percent: yup.number().required(),
    keep: yup.boolean().required(),
    says: yup.string().required(),
  }),
  example: { originalMm: 3.53, compressedMm: 2.8, recoveredMm: 3.4 },
  run: ({ originalMm, compressedMm, recoveredMm }) =>
    compressionSet(originalMm, compressedMm, recoveredMm),
})

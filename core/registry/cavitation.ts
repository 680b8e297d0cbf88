import * as yup from 'yup'
import { number, strictObject } from '../schema'
import { waterFlow } from '../sizing'
import { computation } from './computation'

export const cavitation = computation({
  name: 'cavitation',
  title: 'Cavitation index',
  summary:
    'How near a water valve is to cavitation: the index of its pressures, and whether it lies under the one at which its sheet says that cavitation begins.',
  source: 'σ = (p1 − pv)/(p1 − p2); vapour pressure by Antoine’s equation.',
  input: strictObject({
    inletKpa: number(-101, 50_000).required(),
    outletKpa: number(-101, 50_000).required(),
    temperatureK: number(200, 500).required(),
    sigmaIncipient: number(0.5, 20),
  }),
  output: yup.object({
    sigma: yup.number().nullable().defined(),
    cavitates: yup.boolean().nullable().defined(),
    flashes: yup.boolean().required(),
  }),
  example: { inletKpa: 700, outletKpa: 350, temperatureK: 283.15, sigmaIncipient: 1.9 },
  run(input) {
    const { sigma, cavitates, flashes } = waterFlow({ cv: 1, ...input })
    return { sigma, cavitates, flashes }
  },
})

import * as yup from 'yup'
import { CannotCompute } from '../errors'
import { convertValue, roundTo } from '../quantity'
import { protectionLimit } from '../rules'
import { quantityOf, slug, strictObject } from '../schema'
import { computation } from './computation'

export const overpressureLimit = computation({
  name: 'overpressure-limit',
  title: 'Over-pressure limit',
  summary:
    'How far the pressure of a protected system may rise when its regulator fails, by its maximum allowable operating pressure and the tiers of a rule pack.',
  source: 'The rule pack named; for its United States tiers 49 CFR 192.201 (a) (2).',
  input: strictObject({
    rulePack: slug().required(),
    maop: quantityOf('gaugePressure').required(),
    /** Pressure that stresses the pipe to 75 % of its yield strength, where it is known. */
    yieldLimit: quantityOf('gaugePressure').default(undefined).optional(),
  }),
  output: yup.object({
    limit: yup.string().required(),
    unit: yup.string().required(),
    kPa: yup.number().required(),
  }),
  example: {
    rulePack: 'larkhaven-gas-at-flow',
    maop: { dimension: 'gaugePressure', value: '60', unit: 'psi' },
  },
  run({ rulePack, maop, yieldLimit }, library) {
    const pack = library.rulePacks.find((p) => p.id === rulePack)
    const high = pack && protectionLimit(pack, maop, yieldLimit)
    if (high === undefined || high === null)
      throw new CannotCompute(
        'no-protection',
        `There is no rule pack “${rulePack}” with a limit of protection for this pressure.`,
        'Choose a pack for gas regulators.',
      )
    return {
      limit: roundTo(high, 2),
      unit: maop.unit,
      kPa: convertValue('gaugePressure', high, maop.unit, 'kPa'),
    }
  },
})

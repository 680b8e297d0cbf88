import type * as yup from 'yup'
import { CannotCompute } from '../../errors'
import { fromSi, roundTo, toSi } from '../../quantity'
import { number, slug, strictObject } from '../../schema'
import { type GasCoefficients, type ReliefCapacity, reliefCapacity } from '../../sizing'
import { usualDigits } from '../plausible'
import type { TestRun } from '../types'
import { because, needsNominal } from '../reason'
import type { Basis, Missing } from './basis'
import { itemFields } from './fields'
import { tieredEnd, tierFields } from './tiers'
import { valueIn } from './value'

const coefficients = () => strictObject({ cv: slug().required(), cg: slug(), c1: slug() })
type Coefficients = yup.InferType<ReturnType<typeof coefficients>>

const schema = strictObject({
  ...itemFields('capacity'),
  /**
   * Nominal values: coefficients of the regulator wide open and of the relief, each with Cg and C1 in its
   * place or beside it, and the highest inlet.
   */
  regulator: coefficients().required(),
  relief: coefficients().required(),
  inlet: slug().required(),
  /** The inlet as it was read: where it was higher, the review is made at that pressure. */
  inletRead: slug(),
  /** Where the relief starts to discharge: as it was read, or as it is set. */
  start: slug().required(),
  /** It is fully lifted so many percent above that; none for one that pops. */
  fullAbove: number(0, 100).required(),
  /** Of the gas, against air. */
  specificGravity: number(0.05, 5).required(),
  gamma: number(1.05, 1.7).required(),
  ...tierFields,
})
type Item = yup.InferType<typeof schema>
export type CapacityItem = Item

/** Where a sheet gives Cv alone: the usual pressure drop ratio of a globe body (IEC 60534-2-1). */
const USUAL_XT = 0.7
/** Figures of one sheet agree within so much. */
const AGREE = 0.05
const FIFTEEN_C = 288.15

/**
 * Computes what comes in with the regulator failed wide open at the highest inlet, nominal or read, against what the
 * relief lets off: both curves and where they balance.
 */
export function capacityFor(item: Item, run: TestRun): ReliefCapacity | Missing {
  const nominal = (name: string) => run.nominals?.[name]
  for (const name of [item.inlet, item.of]) {
    if (!nominal(name)) return { missing: needsNominal(name) }
  }
  const regulator = valveOf(item.regulator, run)
  if ('missing' in regulator) return regulator
  const relief = valveOf(item.relief, run)
  if ('missing' in relief) return relief
  const start = valueIn(run, item.start, 'gaugePressure', 'kPa')
  if (!start)
    return {
      missing: because('needs-readings', `${item.start.replaceAll('-', ' ')} was not read`, {
        items: item.start,
      }),
    }
  const inletRead = item.inletRead
    ? valueIn(run, item.inletRead, 'gaugePressure', 'kPa')
    : undefined
  if (inletRead === null)
    return {
      missing: because('needs-readings', 'the inlet was not read, and may be above its maximum', {
        items: item.inletRead ?? '',
      }),
    }
  const limit = tieredEnd(item, run, 'kPa')
  if ('missing' in limit) return limit
  const si = (name: string) => {
    const value = nominal(name)
    return value ? toSi(value) : 0
  }
  try {
    return reliefCapacity({
      regulator,
      relief: {
        ...relief,
        startKpa: start.value,
        fullKpa: start.value * (1 + item.fullAbove / 100),
      },
      inletMaximumKpa: Math.max(si(item.inlet), inletRead?.value ?? 0),
      limitKpa: limit.high ?? 0,
      gas: {
        specificGravity: item.specificGravity,
        gamma: item.gamma,
        temperatureK: FIFTEEN_C,
        z: 1,
      },
    })
  } catch (error) {
    if (error instanceof CannotCompute)
      return { missing: because('cannot-compute', error.message, { cause: error.code }) }
    throw error
  }
}

/** Cv, or Cg with C1, as the equipment has them; where it has all of them they must belong together. */
function valveOf(names: Coefficients, run: TestRun): GasCoefficients | Missing {
  const of = (name: string | undefined) => {
    const value = name && run.nominals?.[name]
    return value ? toSi(value) : undefined
  }
  const [cv, cg, c1] = [of(names.cv), of(names.cg), of(names.c1)]
  const byCg = cg !== undefined && c1 !== undefined ? { cg, c1 } : null
  if (cv === undefined) return byCg ?? { missing: needsNominal(names.cv) }
  if (byCg && Math.abs(byCg.cg / byCg.c1 / cv - 1) > AGREE) {
    const title = names.cv.replace(/-cv$/, '')
    return {
      missing: because(
        'coefficients-disagree',
        `Cv, Cg and C1 of the ${title} do not belong together (C1 is Cg ÷ Cv): look at its sheet again`,
        { name: title },
      ),
    }
  }
  return { cv, xT: USUAL_XT }
}

/**
 * The pressure at which relief and failed regulator balance, under the limit of the protected system
 * (49 CFR 192.743: capacity is reviewed each calendar year).
 */
export const capacity: Basis<Item> = {
  schema,
  recorded: false,
  uncertainty: 'readings',
  restsOn: (item) => [
    ...[item.regulator, item.relief].flatMap(({ cv, cg, c1 }) => [cv, cg ?? [], c1 ?? []].flat()),
    item.inlet,
    ...(item.inletRead ? [item.inletRead] : []),
    item.start,
    item.of,
  ],
  limit: () => undefined,
  measure: (item, run) => {
    const found = capacityFor(item, run)
    if ('missing' in found) return found
    const { unit } = run.nominals?.[item.of] ?? { unit: 'kPa' }
    const start = valueIn(run, item.start, 'gaugePressure', unit)
    const value = fromSi('gaugePressure', found.balanceKpa, unit)
    const digits = usualDigits('gaugePressure', unit)
    return {
      dimension: 'gaugePressure',
      unit,
      value,
      text: roundTo(value, digits),
      digits,
      // The balance moves with the opening of the relief.
      ...(start?.standard === undefined ? {} : { standard: start.standard }),
    }
  },
  ends: tieredEnd,
}

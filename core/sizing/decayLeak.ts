import { CannotCompute } from '../errors'

export interface DecayAsked {
  /** m³ that are shut in. */
  readonly volumeM3: number
  readonly seconds: number
  /** kPa absolute and K, at the beginning and at the end. */
  readonly first: { readonly kpa: number; readonly kelvin: number }
  readonly last: { readonly kpa: number; readonly kelvin: number }
  /** Standard uncertainties of one pressure, kPa, and of one temperature, K. */
  readonly pressureU: number
  readonly temperatureU: number
  /** The leak that is allowed, mL/min at 15 °C and 101.325 kPa. */
  readonly allowedMlMin: number
}

export interface DecayLeak {
  /** mL/min at 15 °C and 101.325 kPa; below zero when it seems to have filled. */
  readonly leakMlMin: number
  /** Expanded, k = 2. */
  readonly expandedMlMin: number
  readonly outcome: 'tight' | 'leaks' | 'fed' | 'too-short-to-tell'
  readonly says: string
}

const STANDARD_K = 288.15
const STANDARD_KPA = 101.325
const COVERAGE = 2

/**
 * What leaks out of a shut-in space, from how its pressure falls, corrected for temperature:
 * Q = V/Δt·(p₁/T₁ − p₂/T₂)·T_std/p_std (ideal gas law); uncertainty by JCGM 100, all four readings
 * independent. A hold in which the uncertainty exceeds the allowance tells nothing.
 * @throws CannotCompute for a hold of no time, a space of no size, or a gauge pressure below vacuum
 */
export function decayLeak(asked: DecayAsked): DecayLeak {
  const { volumeM3, seconds, first, last, pressureU, temperatureU, allowedMlMin } = asked
  if (!(volumeM3 > 0 && seconds > 0))
    throw new CannotCompute(
      'hold-without-time',
      'A hold needs a space and a time.',
      'Give the volume that is shut in and how long it was watched.',
    )
  if ([first, last].some(({ kpa, kelvin }) => !(kpa > 0 && kelvin > 0)))
    throw new CannotCompute(
      'not-absolute',
      'Pressures and temperatures are absolute here.',
      'Add the atmosphere to what the gauge shows, and give K.',
    )
  // m³/s of a change of p/T → mL/min at standard conditions.
  const scale = (volumeM3 / seconds) * (STANDARD_K / STANDARD_KPA) * 6e7
  const leakMlMin = scale * (first.kpa / first.kelvin - last.kpa / last.kelvin)
  const variance = [first, last].reduce(
    (sum, { kpa, kelvin }) =>
      sum + (pressureU / kelvin) ** 2 + ((kpa * temperatureU) / kelvin ** 2) ** 2,
    0,
  )
  const expandedMlMin = COVERAGE * scale * Math.sqrt(variance)
  const figures = `${leakMlMin.toFixed(1)} ± ${expandedMlMin.toFixed(1)} mL/min, allowed ${allowedMlMin}`
  if (expandedMlMin > allowedMlMin)
    return {
      leakMlMin,
      expandedMlMin,
      outcome: 'too-short-to-tell',
      says: `Too short to tell: ${figures}. Hold it longer, or read the pressure more finely.`,
    }
  // What fills is fed past a valve, and a leak may hide behind it: never taken for tight.
  if (leakMlMin < -expandedMlMin)
    return {
      leakMlMin,
      expandedMlMin,
      outcome: 'fed',
      says: `It fills rather than leaks: ${figures}. Look what feeds it, shut that, and hold it again.`,
    }
  const tight = leakMlMin <= allowedMlMin
  return { leakMlMin, expandedMlMin, outcome: tight ? 'tight' : 'leaks', says: `${figures}.` }
}

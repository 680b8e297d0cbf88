import { CannotCompute } from '../errors'
import { ATMOSPHERE_KPA } from '../fluid'
import { convertValue } from '../quantity'

export interface WaterFlowAsked {
  /** gpm at 1 psi, as the valve stands. */
  readonly cv: number
  /** kPa gauge before and after it. */
  readonly inletKpa: number
  readonly outletKpa: number
  readonly temperatureK: number
  /** The index at which the sheet says that cavitation begins. */
  readonly sigmaIncipient?: number | undefined
}

export interface WaterFlow {
  /** m³/h. */
  readonly m3h: number
  /** (p1 − pv)/(p1 − p2); null where nothing drops. */
  readonly sigma: number | null
  /** kPa absolute at which the water boils. */
  readonly vapourKpa: number
  /** Null where the sheet has no index to hold it against, or nothing drops. */
  readonly cavitates: boolean | null
  /** The outlet lies under the vapour pressure: it boils. */
  readonly flashes: boolean
}

const [COLDEST_K, HOTTEST_K] = [273.15, 373.15]

/** kPa absolute; Antoine’s equation for water from 1 to 100 °C, within 0.3 %. */
const vapourPressure = (kelvin: number): number =>
  10 ** (8.07131 - 1730.63 / (kelvin - 273.15 + 233.426)) * 0.133322

/**
 * Water through a valve: q = Cv·√(Δp/SG) (IEC 60534-2-1, turbulent, not choked), and the cavitation
 * index σ = (p1 − pv)/(p1 − p2): the lower, the nearer to cavitation.
 * @throws CannotCompute when the outlet is above the inlet, or it is no liquid water
 */
export function waterFlow(asked: WaterFlowAsked): WaterFlow {
  const { cv, inletKpa, outletKpa, temperatureK, sigmaIncipient } = asked
  if (outletKpa > inletKpa)
    throw new CannotCompute(
      'flows-backwards',
      'The outlet is above the inlet.',
      'Exchange the two, or read them again.',
    )
  if (temperatureK < COLDEST_K || temperatureK > HOTTEST_K)
    throw new CannotCompute(
      'not-liquid',
      'Water is reckoned with from 0 to 100 °C.',
      'Look at the temperature again.',
    )
  const vapourKpa = vapourPressure(temperatureK)
  const drop = inletKpa - outletKpa
  const sigma = drop === 0 ? null : (inletKpa + ATMOSPHERE_KPA - vapourKpa) / drop
  const gpm = cv * Math.sqrt(convertValue('differential', drop, 'kPa', 'psi'))
  return {
    m3h: convertValue('liquidFlow', gpm, 'gpm', 'm³/h'),
    sigma,
    vapourKpa,
    cavitates: sigma === null || sigmaIncipient === undefined ? null : sigma <= sigmaIncipient,
    flashes: outletKpa + ATMOSPHERE_KPA <= vapourKpa,
  }
}

import type { Volume } from './elements'
import { ATMOSPHERE_KPA, gasDensityPerKpa, type Medium } from './medium'

/** Mass in a volume as a function of its gauge pressure, kg, and its slope, kg/kPa. */
export interface Content {
  /** Mass above that at 0 kPa, so that small changes keep their digits. */
  mass(pressureKpa: number): number
  slope(pressureKpa: number): number
  /** Mass at 0 kPa. */
  readonly atRest: number
}

/** Water gives by its bulk modulus, the wall by its elasticity, caught air by Boyle’s law; gas by its own. */
export function contentOf(volume: Volume, medium: Medium): Content {
  const elasticity = volume.elasticityPerKpa ?? 0
  if (medium.kind === 'gas') {
    const perKpa = volume.volumeM3 * gasDensityPerKpa(medium)
    return {
      atRest: perKpa * ATMOSPHERE_KPA,
      mass: (p) => perKpa * ((p + ATMOSPHERE_KPA) * (1 + elasticity * p) - ATMOSPHERE_KPA),
      slope: (p) => perKpa * (1 + elasticity * (2 * p + ATMOSPHERE_KPA)),
    }
  }
  const air = volume.airM3 ?? 0
  const give = volume.volumeM3 * medium.density * (1 / medium.bulkModulusKpa + elasticity)
  const airMass = air * medium.density
  const absolute = (p: number) => Math.max(p + ATMOSPHERE_KPA, 1)
  return {
    atRest: (volume.volumeM3 - air) * medium.density,
    mass: (p) => give * p + airMass * (1 - ATMOSPHERE_KPA / absolute(p)),
    slope: (p) => give + (airMass * ATMOSPHERE_KPA) / absolute(p) ** 2,
  }
}

/** kPa absolute of the standard atmosphere (ISO 2533). */
export const ATMOSPHERE_KPA = 101.325
/** m/s² (ISO 80000-3). */
export const GRAVITY = 9.80665
/** Molar gas constant ÷ molar mass of air, kJ/(kg·K). */
const AIR_GAS_CONSTANT = 0.287055

export interface Water {
  readonly kind: 'water'
  /** kg/m³ */
  readonly density: number
  /** Bulk modulus, kPa. */
  readonly bulkModulusKpa: number
}

export interface Gas {
  readonly kind: 'gas'
  /** Relative density to air. */
  readonly specificGravity: number
  /** Ratio of specific heats. */
  readonly gamma: number
  readonly temperatureK: number
  /** Compressibility factor. */
  readonly z: number
  /** Pressure drop ratio at which a valve chokes, of the valves in this network (IEC 60534-2-1). */
  readonly xT: number
}

export type Medium = Water | Gas

/** Cold drinking water; bulk modulus at 10 °C. */
export const coldWater: Water = { kind: 'water', density: 999.7, bulkModulusKpa: 2.1e6 }

/** Natural gas of ordinary density at 15 °C. */
export const naturalGas: Gas = {
  kind: 'gas',
  specificGravity: 0.6,
  gamma: 1.31,
  temperatureK: 288.15,
  z: 1,
  xT: 0.7,
}

/** kg/(m³·kPa) of a gas that keeps its temperature: ideal gas law with Z. */
export const gasDensityPerKpa = (gas: Gas): number =>
  gas.specificGravity / (AIR_GAS_CONSTANT * gas.temperatureK * gas.z)

import { CannotCompute } from '../errors'
/**
 * Every unit the application knows, by dimension. A unit turns into the dimension's SI unit as
 * `si = value × factor + offset`.
 *
 * Sources: NIST SP 811 (2008) appendix B for the factors. Columns of water are the conventional one
 * throughout, 9.80665 kPa per metre (4 °C), as the correction for the height of a gauge is: 27.68 in
 * a psi. The inch of water at 60 °F, 0.1 % less, is a unit of its own: a rule pack and its procedures say which they mean. inHg is the conventional column at 0 °C. Standard gas
 * volumes are referred to 15 °C and 101.325 kPa; a standard cubic foot (60 °F, 14.696 psia) is
 * brought to that reference by T·p.
 */
const PSI = 6.894757293168
/** kPa of a metre of water, conventional. */
export const WATER_COLUMN_KPA_PER_M = 9.80665
const FT3 = 0.028316846592
const GALLON = 0.003785411784
const SCF_TO_SM3 = FT3 * (288.15 / 288.7055555555556) * (14.696 / (101.325 / PSI))

interface UnitDefinition {
  /** What stands behind the number. */
  readonly label: string
  readonly factor: number
  readonly offset?: number
  /** Digits after the point that a person usually reads in this unit. */
  readonly digits: number
}

const pressureUnits = {
  psi: { label: 'psi', factor: PSI, digits: 1 },
  kPa: { label: 'kPa', factor: 1, digits: 1 },
  bar: { label: 'bar', factor: 100, digits: 3 },
  mbar: { label: 'mbar', factor: 0.1, digits: 0 },
  inH2O: { label: 'inH₂O', factor: WATER_COLUMN_KPA_PER_M * 0.0254, digits: 1 },
  inH2O60F: { label: 'inH₂O (60 °F)', factor: 0.248843, digits: 1 },
  mmH2O: { label: 'mmH₂O', factor: WATER_COLUMN_KPA_PER_M / 1000, digits: 0 },
  inHg: { label: 'inHg', factor: 3.386389, digits: 2 },
} as const satisfies Record<string, UnitDefinition>

/** Dimensions and their units; the SI unit used inside is named in the comment. */
export const dimensions = {
  /** kPa above atmosphere */
  gaugePressure: pressureUnits,
  /** kPa above vacuum */
  absolutePressure: pressureUnits,
  /** kPa between two points */
  differential: {
    ...pressureUnits,
    psi: { label: 'psid', factor: PSI, digits: 1 },
  },
  /** N·m */
  torque: {
    'N·m': { label: 'N·m', factor: 1, digits: 1 },
    'lbf·in': { label: 'lbf·in', factor: 0.112984829027617, digits: 0 },
    'lbf·ft': { label: 'lbf·ft', factor: 1.3558179483314, digits: 1 },
  },
  /** m³/s of liquid */
  liquidFlow: {
    gpm: { label: 'gpm', factor: GALLON / 60, digits: 1 },
    'L/min': { label: 'L/min', factor: 1 / 60000, digits: 1 },
    'L/s': { label: 'L/s', factor: 0.001, digits: 2 },
    'm³/h': { label: 'm³/h', factor: 1 / 3600, digits: 2 },
    'mL/min': { label: 'mL/min', factor: 1 / 6e7, digits: 1 },
  },
  /** m³/s of gas at 15 °C and 101.325 kPa */
  gasFlow: {
    'sm³/h': { label: 'sm³/h', factor: 1 / 3600, digits: 1 },
    scfh: { label: 'scfh', factor: SCF_TO_SM3 / 3600, digits: 0 },
  },
  /** K */
  temperature: {
    '°C': { label: '°C', factor: 1, offset: 273.15, digits: 1 },
    '°F': { label: '°F', factor: 5 / 9, offset: 459.67 * (5 / 9), digits: 0 },
    K: { label: 'K', factor: 1, digits: 1 },
  },
  /** m */
  length: {
    mm: { label: 'mm', factor: 0.001, digits: 1 },
    in: { label: 'in', factor: 0.0254, digits: 2 },
    m: { label: 'm', factor: 1, digits: 3 },
  },
  /** s */
  time: {
    s: { label: 's', factor: 1, digits: 1 },
    min: { label: 'min', factor: 60, digits: 1 },
  },
  /** A part of a whole, 1 being all of it. */
  fraction: {
    '%': { label: '%', factor: 0.01, digits: 1 },
  },
  /** A */
  current: {
    mA: { label: 'mA', factor: 0.001, digits: 2 },
  },
  /** m³ */
  volume: {
    mL: { label: 'mL', factor: 1e-6, digits: 1 },
    L: { label: 'L', factor: 0.001, digits: 3 },
  },
  /** Cv: gpm of water at 1 psi. IEC 60534-1: Kv = 0.865 · Cv. */
  flowCoefficient: {
    Cv: { label: 'Cv', factor: 1, digits: 2 },
    Kv: { label: 'Kv', factor: 1 / 0.865, digits: 2 },
  },
  /** scfh of air per psia of inlet at choked flow, at 60 °F */
  gasCoefficient: {
    Cg: { label: 'Cg', factor: 1, digits: 0 },
  },
  /** Cg ÷ Cv */
  coefficientRatio: {
    C1: { label: 'C1', factor: 1, digits: 1 },
  },
  /** Events a second: drops, bubbles, cycles. */
  frequency: {
    '/min': { label: 'a minute', factor: 1 / 60, digits: 0 },
  },
} as const satisfies Record<string, Record<string, UnitDefinition>>

export type Dimension = keyof typeof dimensions
export type UnitOf<D extends Dimension> = D extends Dimension
  ? Extract<keyof (typeof dimensions)[D], string>
  : never
export type AnyUnit = UnitOf<Dimension>

export const dimensionNames = Object.keys(dimensions) as Dimension[]

/** The words a person reads for a dimension. */
export const dimensionTitles: Readonly<Record<Dimension, string>> = {
  gaugePressure: 'gauge pressure',
  absolutePressure: 'absolute pressure',
  differential: 'differential pressure',
  torque: 'torque',
  liquidFlow: 'liquid flow',
  gasFlow: 'gas flow at standard conditions',
  temperature: 'temperature',
  length: 'length',
  time: 'time',
  fraction: 'percentage',
  current: 'electric current',
  volume: 'volume',
  flowCoefficient: 'flow coefficient',
  gasCoefficient: 'gas sizing coefficient',
  coefficientRatio: 'ratio of coefficients',
  frequency: 'count in a minute',
}

/** Units of a dimension, in the order they are offered. */
export function unitsOf<D extends Dimension>(dimension: D): UnitOf<D>[] {
  return Object.keys(dimensions[dimension]) as UnitOf<D>[]
}

export function isUnitOf<D extends Dimension>(dimension: D, unit: string): unit is UnitOf<D> {
  const known: Readonly<Record<string, object>> = dimensions
  return Object.hasOwn(known[dimension] ?? {}, unit)
}

/** @throws CannotCompute naming the units that fit when the unit is not one of the dimension's. */
export function unitDefinition(dimension: Dimension, unit: string): UnitDefinition {
  if (!isUnitOf(dimension, unit)) {
    throw new CannotCompute(
      'unit-unknown',
      `${unit} is not a unit of ${dimensionTitles[dimension]}.`,
      `Choose one of ${unitsOf(dimension).join(', ')}.`,
    )
  }
  return (dimensions[dimension] as Record<string, UnitDefinition>)[unit] as UnitDefinition
}

/** The unit as it is printed behind a number: a differential in psi reads “psid”. */
export function unitLabel(dimension: Dimension, unit: string): string {
  return unitDefinition(dimension, unit).label
}

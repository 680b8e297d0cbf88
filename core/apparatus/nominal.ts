import { type AnyQuantity, type Dimension, formatQuantity, quantityBounds, toSi } from '../quantity'

/** Nominal values that equipment has, and that items of a pack may be judged by. */
export const nominalNames = {
  'set-point': 'Set point',
  'accuracy-class': 'Accuracy class',
  'lock-up-class': 'Lock-up class',
  maop: 'Maximum allowable operating pressure',
  'yield-limit': 'Pressure at 75 % of yield stress',
  'inlet-maximum': 'Highest inlet pressure',
  'relief-set': 'Relief set point',
  'regulator-cv': 'Flow coefficient, regulator wide open',
  'relief-cv': 'Flow coefficient, relief fully lifted',
  'regulator-cg': 'Gas coefficient, regulator wide open',
  'regulator-c1': 'C1 of the regulator',
  'relief-cg': 'Gas coefficient, relief fully lifted',
  'relief-c1': 'C1 of the relief',
  'monitor-set': 'Monitor set point',
  'slam-shut-high': 'Slam-shut, high trip',
  'slam-shut-low': 'Slam-shut, low trip',
  'spring-low': 'Spring range from',
  'spring-high': 'Spring range to',
  'bench-low': 'Bench set from',
  'bench-high': 'Bench set to',
  'signal-low': 'Signal from',
  'signal-high': 'Signal to',
  'air-signal-low': 'Air signal from',
  'air-signal-high': 'Air signal to',
  travel: 'Travel',
  supply: 'Air supply',
  cracking: 'Cracking differential',
  'stroke-volume': 'Volume of a stroke',
  ratio: 'Injection ratio',
  'test-pressure': 'Test pressure',
  'air-test': 'Air test pressure',
  'cycle-rate': 'Cycles or strokes',
} as const
export type NominalName = keyof typeof nominalNames

export const isNominal = (name: string): name is NominalName => Object.hasOwn(nominalNames, name)

const OTHER_DIMENSIONS: Readonly<Partial<Record<NominalName, Dimension>>> = {
  'accuracy-class': 'fraction',
  'lock-up-class': 'fraction',
  travel: 'length',
  'regulator-cv': 'flowCoefficient',
  'relief-cv': 'flowCoefficient',
  'regulator-cg': 'gasCoefficient',
  'relief-cg': 'gasCoefficient',
  'regulator-c1': 'coefficientRatio',
  'relief-c1': 'coefficientRatio',
  'signal-low': 'current',
  'signal-high': 'current',
  cracking: 'differential',
  'stroke-volume': 'volume',
  ratio: 'fraction',
  'cycle-rate': 'frequency',
}
/** The quantity that a nominal value is of. */
export const nominalDimension = (name: NominalName): Dimension =>
  OTHER_DIMENSIONS[name] ?? 'gaugePressure'

/**
 * Bounds of nominal values that are narrower than those of their quantity, in SI. Accuracy classes run from AC 1 to
 * AC 30 and lock-up classes from SG 2.5 to SG 50 (EN 334); the loosest class bounds each.
 */
const OWN_BOUNDS: Readonly<Partial<Record<NominalName, { above: number; most: number }>>> = {
  'accuracy-class': { above: 0, most: 0.3 },
  'lock-up-class': { above: 0, most: 0.5 },
  'set-point': { above: 0, most: quantityBounds.gaugePressure.most },
  maop: { above: 0, most: quantityBounds.gaugePressure.most },
  supply: { above: 0, most: 5_000 },
  ratio: { above: 0, most: 0.5 },
}

/** Says why a nominal value cannot be one, as an accuracy class of 90 %; null where it can. */
export function nominalFault(name: string, value: AnyQuantity): string | null {
  if (!isNominal(name)) return null
  const { least, most } = quantityBounds[value.dimension]
  const own = OWN_BOUNDS[name]
  const si = toSi(value)
  const fits = own ? si > own.above && si <= own.most + ROUNDING : si >= least && si <= most
  return fits ? null : `${formatQuantity(value)} cannot be its ${nominalNames[name].toLowerCase()}`
}

const ROUNDING = 1e-12

/** One nominal value of a piece of equipment. */
export interface Nominal {
  readonly name: NominalName
  readonly value: AnyQuantity
}

/** Nominal values by name, each in the SI unit of its dimension. */
export const nominalsInSi = (
  nominals: readonly Nominal[],
): Readonly<Partial<Record<NominalName, number>>> =>
  Object.fromEntries(nominals.map(({ name, value }) => [name, toSi(value)]))

import { type AnyQuantity, type Dimension, toSi } from '../quantity'

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
}
/** The quantity that a nominal value is of. */
export const nominalDimension = (name: NominalName): Dimension =>
  OTHER_DIMENSIONS[name] ?? 'gaugePressure'

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

import type { Nominal, NominalName } from '../apparatus'
import type { TestRun } from '../rules'

export const psi = (value: string) => ({ dimension: 'gaugePressure', value, unit: 'psi' }) as const

/** Nominal values for every kind of equipment, as a plate would bear them. */
const values: Partial<Record<NominalName, Nominal['value']>> = {
  'set-point': psi('60'),
  maop: psi('72'),
  'inlet-maximum': psi('150'),
  'relief-set': psi('69'),
  'monitor-set': psi('66'),
  'slam-shut-high': psi('76'),
  'slam-shut-low': psi('36'),
  'bench-low': psi('6'),
  'bench-high': psi('30'),
  supply: psi('80'),
  'test-pressure': psi('150'),
  'air-test': psi('16'),
  'cycle-rate': { dimension: 'frequency', value: '40', unit: '/min' },
  'stroke-volume': { dimension: 'volume', value: '30', unit: 'mL' },
  ratio: { dimension: 'fraction', value: '2', unit: '%' },
  'regulator-cv': { dimension: 'flowCoefficient', value: '4', unit: 'Cv' },
  'relief-cv': { dimension: 'flowCoefficient', value: '60', unit: 'Cv' },
}
export const plate = values as NonNullable<TestRun['nominals']>
export const platedNominals = Object.entries(values).map(([name, value]) => ({
  name,
  value,
})) as Nominal[]

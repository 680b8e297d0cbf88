import type { Nominal, NominalName } from '@uvanta/core/apparatus'
import type { Dimension } from '@uvanta/core/quantity'
import type { Seeded } from './random'

const value = (name: NominalName, dimension: Dimension, amount: number, unit: string): Nominal => ({
  name,
  value: { dimension, value: String(Math.round(amount * 100) / 100), unit },
})
const pressure = (name: NominalName, amount: number, unit = 'psi') =>
  value(name, 'gaugePressure', amount, unit)

/** A gas regulator with its relief valve: set, protected, and what it protects. */
const gasStation = (
  set: number,
  unit: string,
  relief: number,
  maop: number,
  inlet: number,
): Nominal[] => [
  pressure('set-point', set, unit),
  pressure('relief-set', set * relief, unit),
  pressure('maop', set * maop, unit),
  pressure('inlet-maximum', inlet),
  pressure('spring-low', set * 0.7, unit),
  pressure('spring-high', set * 1.4, unit),
]

/** Nominal values of a piece of demo equipment, as its plate and its spec sheet would give them. */
export function nominalsOf(kind: string, random: Seeded): Nominal[] {
  switch (kind) {
    case 'spring regulator':
      return gasStation(random.pick([7, 14, 28]), 'inH2O', 1.3, 1.15, random.pick([60, 80]))
    case 'pilot regulator':
      return gasStation(random.pick([30, 60]), 'psi', 1.15, 1.2, random.pick([150, 190]))
    case 'dome regulator':
      return gasStation(random.pick([40, 60]), 'psi', 1.15, 1.2, 180)
    case 'pressure reducer':
      return [pressure('set-point', random.pick([45, 50, 60])), pressure('inlet-maximum', 150)]
    case 'in-line regulator':
      return [pressure('set-point', random.pick([60, 80])), pressure('inlet-maximum', 150)]
    case 'actuator':
      return [
        value('travel', 'length', 50, 'mm'),
        pressure('supply', 60),
        pressure('bench-low', 6),
        pressure('bench-high', 30),
      ]
    case 'control valve':
      return [value('travel', 'length', 40, 'mm')]
    case 'sampler':
      return [value('stroke-volume', 'volume', 30, 'mL'), pressure('supply', 80)]
    case 'injector':
      return [value('ratio', 'fraction', 2, '%')]
    case 'check valve':
    case 'cylinder':
    case 'on-off valve':
    case 'spool valve':
    case 'cycling valve':
    case 'pulse valve':
    case 'transfer valve':
      return [pressure('supply', 80)]
    default:
      return []
  }
}

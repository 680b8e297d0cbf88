import type { Nominal, NominalName } from '@uvanta/core/apparatus'
import { convertValue, type Dimension, valueToSi } from '@uvanta/core/quantity'
import { gasFlow } from '@uvanta/core/sizing'
import type { Seeded } from './random'

const value = (name: NominalName, dimension: Dimension, amount: number, unit: string): Nominal => ({
  name,
  value: { dimension, value: String(Math.round(amount * 100) / 100), unit },
})
const pressure = (name: NominalName, amount: number, unit = 'psi') =>
  value(name, 'gaugePressure', amount, unit)

/** A gas regulator and what it protects. */
const gasStation = (set: number, unit: string, maop: number, inlet: number): Nominal[] => [
  pressure('set-point', set, unit),
  pressure('maop', set * maop, unit),
  pressure('inlet-maximum', inlet),
  pressure('spring-low', set * 0.7, unit),
  pressure('spring-high', set * 1.4, unit),
]
/** How much larger than it has to be a relief is chosen, and how large one was left when its regulator was renewed. */
const CHOSEN = 1.4
const OUTGROWN = 0.5
const GAS = { specificGravity: 0.6, gamma: 1.31, temperatureK: 288.15, z: 1 }
const kpa = (amount: number, unit: string) => valueToSi('gaugePressure', amount, unit)

/** To what a system may rise over its maximum allowable operating pressure, psi. */
const limitPsi = (maop: number) => (maop >= 60 ? maop * 1.1 : maop >= 12 ? maop + 6 : maop * 1.5)

/** The same with its relief valve, which holds the regulator failed wide open, or once did. */
function relieved(
  set: number,
  unit: string,
  relief: number,
  maop: number,
  inlet: number,
  outgrown: boolean,
): Nominal[] {
  const maopPsi = convertValue('gaugePressure', set * maop, unit, 'psi')
  const limit = kpa(limitPsi(maopPsi), 'psi')
  const flow = (cv: number, from: number, to: number) =>
    gasFlow({ valve: { cv, xT: 0.7 }, gas: GAS, inletKpa: from, outletKpa: to }).sm3h
  const regulatorCv = unit === 'psi' ? 4 : 0.3
  const needed = flow(regulatorCv, kpa(inlet, 'psi'), limit) / flow(1, limit, 0)
  return [
    ...gasStation(set, unit, maop, inlet),
    pressure('relief-set', set * relief, unit),
    value('regulator-cv', 'flowCoefficient', regulatorCv, 'Cv'),
    value('relief-cv', 'flowCoefficient', needed * (outgrown ? OUTGROWN : CHOSEN), 'Cv'),
  ]
}

/**
 * Nominal values of a piece of demo equipment, as its plate and its spec sheet would give them.
 * @param outgrown its relief is too small for it
 */
export function nominalsOf(kind: string, random: Seeded, outgrown = false): Nominal[] {
  switch (kind) {
    case 'spring regulator':
      return relieved(random.pick([7, 14, 28]), 'inH2O', 1.3, 1.15, random.pick([60, 80]), outgrown)
    case 'slam-shut regulator': {
      const set = random.pick([7, 14, 28])
      return [
        ...gasStation(set, 'inH2O', 1.15, random.pick([60, 80])),
        pressure('slam-shut-high', set * 1.4, 'inH2O'),
        pressure('slam-shut-low', set * 0.6, 'inH2O'),
      ]
    }
    case 'monitored regulator': {
      const set = random.pick([30, 60])
      return [...gasStation(set, 'psi', 1.2, 190), pressure('monitor-set', set * 1.1)]
    }
    case 'pilot regulator':
      return relieved(random.pick([30, 60]), 'psi', 1.15, 1.2, random.pick([150, 190]), outgrown)
    case 'dome regulator':
      return relieved(random.pick([40, 60]), 'psi', 1.15, 1.2, 180, outgrown)
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
        pressure('air-signal-low', 3),
        pressure('air-signal-high', 15),
      ]
    case 'control valve':
      return [
        value('travel', 'length', 40, 'mm'),
        value('signal-low', 'current', 4, 'mA'),
        value('signal-high', 'current', 20, 'mA'),
      ]
    case 'sampler':
      return [value('stroke-volume', 'volume', 30, 'mL'), pressure('supply', 80)]
    case 'injector':
      return [value('ratio', 'fraction', 2, '%')]
    case 'on-off valve':
      return [pressure('supply', 80), pressure('test-pressure', 10_000)]
    case 'spool valve':
      return [pressure('supply', 80), value('cycle-rate', 'frequency', 40, '/min')]
    case 'cycling valve':
      return [pressure('supply', 80), value('cycle-rate', 'frequency', 60, '/min')]
    case 'coupler':
      return [pressure('test-pressure', 150), pressure('air-test', 15)]
    case 'check valve':
    case 'cylinder':
    case 'pulse valve':
    case 'transfer valve':
      return [pressure('supply', 80)]
    default:
      return []
  }
}

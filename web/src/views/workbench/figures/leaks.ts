import { fromSi, roundTo } from '@uvanta/core/quantity'
import { benchSet } from '@uvanta/core/stroke'
import { decayLeak, seatAllowance } from '@uvanta/core/sizing'
import { type Figure, type FigureBench, must } from './figureBench'

const psi = (kpa: number) => `${roundTo(fromSi('gaugePressure', kpa, 'psi'), 1)} psi`
const gauge = (name: string, label: string, value: string, optional = false): Figure => ({
  name,
  label,
  dimension: 'gaugePressure',
  unit: 'psi',
  value,
  optional,
})

export const benchSetBench: FigureBench = {
  computation: 'bench-set',
  title: 'Bench set and friction',
  draws: 'actuator',
  figures: [
    gauge('firstUp', 'Moves first, rising', '6.4'),
    gauge('fullUp', 'Full travel, rising', '30.5'),
    gauge('firstDown', 'Moves first, falling', '28.7'),
    gauge('fullDown', 'Home, falling', '4.6'),
    gauge('low', 'Plate, from', '6', true),
    gauge('high', 'Plate, to', '30', true),
  ],
  work(given) {
    const { low, high } = given
    const found = benchSet({
      firstUpKpa: must(given, 'firstUp'),
      fullUpKpa: must(given, 'fullUp'),
      firstDownKpa: must(given, 'firstDown'),
      fullDownKpa: must(given, 'fullDown'),
      ...(low === undefined ? {} : { plateLowKpa: low }),
      ...(high === undefined ? {} : { plateHighKpa: high }),
    })
    return {
      answer: `${psi(found.lowKpa)} to ${psi(found.highKpa)}`,
      says: [
        `Friction ${psi(found.frictionKpa)}, ${roundTo(found.frictionPercent, 1)} % of the range: half the gap between rising and falling.`,
        ...(found.shiftKpa === null
          ? []
          : [
              `Set ${psi(Math.abs(found.shiftKpa))} ${found.shiftKpa < 0 ? 'under' : 'over'} its plate.`,
            ]),
      ],
    }
  },
}

/** Classes that allow a part of the rated flow. */
const BY_RATED = ['II', 'III', 'IV'] as const

export const seatBench: FigureBench = {
  computation: 'seat-leakage',
  title: 'What a seat may leak',
  draws: 'control valve',
  figures: [
    { name: 'port', label: 'Port', dimension: 'length', unit: 'in', value: '2' },
    { name: 'drop', label: 'Drop', dimension: 'differential', unit: 'psi', value: '50' },
    {
      name: 'rated',
      label: 'Rated flow',
      dimension: 'liquidFlow',
      unit: 'gpm',
      value: '100',
    },
  ],
  work(given) {
    const portIn = fromSi('length', must(given, 'port'), 'in')
    const dropPsi = fromSi('differential', must(given, 'drop'), 'psi')
    const ratedMlMin = fromSi('liquidFlow', must(given, 'rated'), 'mL/min')
    const six = seatAllowance({ leakageClass: 'VI', portIn })
    const five = seatAllowance({ leakageClass: 'V', portIn, dropPsi })
    const byRated = BY_RATED.map((leakageClass) => ({
      leakageClass,
      ...seatAllowance({ leakageClass, ratedMlMin }),
    }))
    return {
      answer: `Class VI: ${roundTo(six.mlMin, 2)} mL/min${six.bubblesMin === undefined ? '' : `, ${six.bubblesMin} bubbles a minute`}`,
      says: [
        `Class V: ${roundTo(five.mlMin, 3)} mL/min of ${five.medium}.`,
        ...byRated.map(
          (c) => `Class ${c.leakageClass}: ${roundTo(c.mlMin, 0)} mL/min, ${c.medium}.`,
        ),
      ],
    }
  },
}

export const decayBench: FigureBench = {
  computation: 'decay-leak',
  title: 'Leak from a falling pressure',
  draws: 'cylinder',
  figures: [
    { name: 'volume', label: 'Shut-in volume', dimension: 'volume', unit: 'L', value: '2' },
    { name: 'held', label: 'Held for', dimension: 'time', unit: 'min', value: '10' },
    {
      name: 'first',
      label: 'Absolute, first',
      dimension: 'absolutePressure',
      unit: 'psi',
      value: '94.7',
    },
    {
      name: 'last',
      label: 'Absolute, last',
      dimension: 'absolutePressure',
      unit: 'psi',
      value: '94.5',
    },
    { name: 'firstT', label: 'Warm, first', dimension: 'temperature', unit: '°C', value: '15' },
    { name: 'lastT', label: 'Warm, last', dimension: 'temperature', unit: '°C', value: '15.2' },
    { name: 'pU', label: 'Gauge, ±', dimension: 'differential', unit: 'psi', value: '0.05' },
    { name: 'tU', label: 'Thermometer, ± K', value: '0.1' },
    {
      name: 'allowed',
      label: 'Allowed',
      dimension: 'liquidFlow',
      unit: 'mL/min',
      value: '10',
    },
  ],
  work(given) {
    const found = decayLeak({
      volumeM3: must(given, 'volume'),
      seconds: must(given, 'held'),
      first: { kpa: must(given, 'first'), kelvin: must(given, 'firstT') },
      last: { kpa: must(given, 'last'), kelvin: must(given, 'lastT') },
      pressureU: must(given, 'pU'),
      temperatureU: must(given, 'tU'),
      allowedMlMin: fromSi('liquidFlow', must(given, 'allowed'), 'mL/min'),
    })
    return {
      answer: `${roundTo(found.leakMlMin, 1)} ± ${roundTo(found.expandedMlMin, 1)} mL/min`,
      says: [found.says],
    }
  },
}

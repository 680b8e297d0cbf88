import { CannotCompute } from '@uvanta/core/errors'
import { fromSi, roundTo } from '@uvanta/core/quantity'
import { protectionLimit, type RulePack } from '@uvanta/core/rules'
import { gasFlow, reliefCapacity, waterFlow } from '@uvanta/core/sizing'
import { type Figure, type FigureBench, type Given, must } from './figureBench'

const pressure = (name: string, label: string, value: string, unit = 'psi'): Figure => ({
  name,
  label,
  dimension: 'gaugePressure',
  unit,
  value,
})
const number = (name: string, label: string, value: string, optional = false): Figure => ({
  name,
  label,
  value,
  optional,
})
const gasOf = (given: Given) => ({
  specificGravity: must(given, 'gravity'),
  gamma: 1.31,
  temperatureK: 288.15,
  z: 1,
})
const flowWords = (sm3h: number) =>
  `${roundTo(fromSi('gasFlow', sm3h / 3600, 'scfh'), 0)} scfh, ${roundTo(sm3h, 1)} sm³/h`
const psi = (kpa: number) => `${roundTo(fromSi('gaugePressure', kpa, 'psi'), 1)} psi`

export const gasBench: FigureBench = {
  computation: 'size-gas-flow',
  title: 'Gas through a valve',
  draws: 'control valve',
  figures: [
    number('cv', 'Cv', '10', true),
    number('xT', 'xT', '0.7', true),
    number('cg', 'Cg', '', true),
    number('c1', 'C1', '', true),
    number('gravity', 'Gravity of the gas', '0.6'),
    pressure('inlet', 'Inlet', '100'),
    pressure('outlet', 'Outlet', '30'),
  ],
  work(given) {
    const { cv, xT, cg, c1 } = given
    const found = gasFlow({
      valve: { cv, xT, cg, c1 },
      gas: gasOf(given),
      inletKpa: must(given, 'inlet'),
      outletKpa: must(given, 'outlet'),
    })
    return {
      answer: flowWords(found.sm3h),
      says: [
        `By ${found.by}${found.choked ? '; choked: a lower outlet brings no more' : ''}.`,
        ...(found.other
          ? [
              `The other pair of figures gives ${flowWords(found.other.sm3h)}, ${roundTo(found.other.differsPercent, 1)} % apart.`,
            ]
          : []),
      ],
      questions: found.questions,
    }
  },
}

export const waterBench: FigureBench = {
  computation: 'size-water-flow',
  title: 'Water through a valve, and cavitation',
  draws: 'control valve',
  figures: [
    number('cv', 'Cv', '30'),
    pressure('inlet', 'Inlet', '100'),
    pressure('outlet', 'Outlet', '50'),
    { name: 'warm', label: 'Water', dimension: 'temperature', unit: '°C', value: '10' },
    number('sigma', 'Sheet: cavitates under index', '1.9', true),
  ],
  work(given) {
    const { sigma } = given
    const found = waterFlow({
      cv: must(given, 'cv'),
      inletKpa: must(given, 'inlet'),
      outletKpa: must(given, 'outlet'),
      temperatureK: must(given, 'warm'),
      ...(sigma === undefined ? {} : { sigmaIncipient: sigma }),
    })
    const gpm = fromSi('liquidFlow', found.m3h / 3600, 'gpm')
    return {
      answer: `${roundTo(gpm, 1)} gpm, ${roundTo(found.m3h, 1)} m³/h`,
      says: [
        found.sigma === null
          ? 'Nothing drops: there is no cavitation index.'
          : `Cavitation index ${roundTo(found.sigma, 2)}.`,
      ],
      questions: [
        ...(found.flashes ? ['It flashes: steam leaves the valve.'] : []),
        ...(found.cavitates
          ? ['It cavitates: part the drop over two valves, or take one made for it.']
          : []),
      ],
    }
  },
}

/** The limit of a protected system by every rule pack that has one. */
export const limitBench = (packs: readonly RulePack[]): FigureBench => ({
  computation: 'overpressure-limit',
  title: 'Over-pressure limit',
  draws: 'spring regulator',
  wide: true,
  figures: [
    pressure('maop', 'Maximum allowable operating pressure', '60'),
    { ...pressure('yield', 'At 75 % of yield stress', ''), optional: true },
  ],
  work(given) {
    const quantity = (kpa: number) => ({
      dimension: 'gaugePressure' as const,
      value: roundTo(fromSi('gaugePressure', kpa, 'psi'), 4),
      unit: 'psi',
    })
    const yieldKpa = given.yield
    const limits = packs.flatMap((pack) => {
      const limit = protectionLimit(
        pack,
        quantity(must(given, 'maop')),
        yieldKpa === undefined ? undefined : quantity(yieldKpa),
      )
      return limit === null ? [] : [{ pack: pack.title, limit }]
    })
    if (limits.length === 0)
      throw new CannotCompute(
        'no-protection',
        'No rule pack has a limit for this pressure.',
        'Ask the engineer of the station.',
      )
    const least = Math.min(...limits.map((l) => l.limit))
    return {
      answer: `At most ${roundTo(least, 1)} psi`,
      says: [
        ...limits.map((l) => `${l.pack}: ${roundTo(l.limit, 1)} psi.`),
        'The rule that is in force at the site counts.',
      ],
    }
  },
})

export const reliefBench: FigureBench = {
  computation: 'relief-capacity',
  title: 'Relief against its regulator',
  draws: 'pilot regulator',
  wide: true,
  figures: [
    number('regulatorCv', 'Regulator wide open, Cv', '1.2'),
    number('reliefCv', 'Relief, Cv', '12'),
    pressure('inlet', 'Highest inlet', '100'),
    pressure('start', 'Relief starts', '6'),
    pressure('full', 'Fully lifted', '7'),
    pressure('limit', 'Limit of the system', '9'),
    number('gravity', 'Gravity of the gas', '0.6'),
  ],
  work(given) {
    const found = reliefCapacity({
      regulator: { cv: must(given, 'regulatorCv'), xT: 0.7 },
      relief: {
        cv: must(given, 'reliefCv'),
        xT: 0.7,
        startKpa: must(given, 'start'),
        fullKpa: must(given, 'full'),
      },
      inletMaximumKpa: must(given, 'inlet'),
      limitKpa: must(given, 'limit'),
      gas: gasOf(given),
    })
    const margin = Math.abs(Math.round(found.marginPercent))
    return {
      answer: `Balance at ${psi(found.balanceKpa)}`,
      says: [
        `At the limit ${flowWords(found.inflowSm3h)} come in, and the relief lets off ${flowWords(found.capacitySm3h)}: ${margin} % ${found.marginPercent < 0 ? 'too little' : 'more'}.`,
        found.limitedBy === 'orifice'
          ? 'Its orifice limits it.'
          : 'Its spring, not yet fully lifted, limits it.',
      ],
      questions: found.holds ? [] : ['It does not hold the system under its limit.'],
    }
  },
}

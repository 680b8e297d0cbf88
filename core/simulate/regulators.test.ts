import { describe, expect, it } from 'vitest'
import type { Fault } from '../apparatus'
import { type RegulatorKind, RegulatorSite } from '../apparatus/regulator'
import { testPlanOf } from '../library'
import type { AnyQuantity } from '../quantity'
import { judgeTest } from '../rules'
import { shippedLibrary } from '../testing/library'
import { runTest } from '.'

const kpa = (value: number): AnyQuantity => ({
  dimension: 'gaugePressure',
  value: value.toFixed(3),
  unit: 'kPa',
})

interface Station {
  readonly kind: RegulatorKind
  readonly pack: string
  readonly setKpa: number
  readonly supplyKpa: number
  readonly maopKpa?: number
  /** What protects it, by the names of its nominal values, kPa. */
  readonly guard?: Partial<
    Record<'relief-set' | 'monitor-set' | 'slam-shut-high' | 'slam-shut-low', number>
  >
}
const GAS = 'larkhaven-gas-at-flow'
const WATER = 'larkhaven-pressure-reducers'
const service: Station = {
  kind: 'spring regulator',
  pack: GAS,
  setKpa: 1.74,
  supplyKpa: 400,
  guard: { 'relief-set': 2.5 },
  maopKpa: 1.9,
}
const district: Station = {
  kind: 'pilot regulator',
  pack: GAS,
  setKpa: 414,
  supplyKpa: 900,
  guard: { 'relief-set': 470 },
  maopKpa: 440,
}
const dome: Station = { ...district, kind: 'dome regulator', supplyKpa: 800 }
const reducer: Station = { kind: 'pressure reducer', pack: WATER, setKpa: 345, supplyKpa: 620 }
const inLine: Station = { kind: 'in-line regulator', pack: WATER, setKpa: 500, supplyKpa: 900 }
const slamShut: Station = {
  kind: 'slam-shut regulator',
  pack: GAS,
  setKpa: 1.74,
  supplyKpa: 400,
  maopKpa: 1.9,
  guard: { 'slam-shut-high': 2.5, 'slam-shut-low': 1 },
}
const monitored: Station = {
  kind: 'monitored regulator',
  pack: GAS,
  setKpa: 414,
  supplyKpa: 900,
  maopKpa: 470,
  guard: { 'monitor-set': 455 },
}
const stations = [service, district, dome, reducer, inLine, slamShut, monitored]

/** A whole run by the procedure of the pack, on the model, judged by the pack. */
function run(
  station: Station,
  faults: readonly Fault[] = [],
  { sizeIn = 2, springs = {}, pack = station.pack, reliefCv = '8' } = {},
) {
  const plan = testPlanOf(shippedLibrary, pack, station.kind)
  const { kind, setKpa, supplyKpa, maopKpa, guard = {} } = station
  const site = new RegulatorSite({
    kind,
    sizeIn,
    condition: { faults, supplyKpa, springs },
    nominals: { 'set-point': setKpa, ...guard },
  })
  const found = runTest(plan.procedure, site, {
    unitFor: (of) => (of < 20 ? 'inH2O' : undefined),
  })
  const coefficient = (value: string): AnyQuantity => ({
    dimension: 'flowCoefficient',
    value,
    unit: 'Cv',
  })
  const nominals = {
    'regulator-cv': coefficient('0.2'),
    'relief-cv': coefficient(reliefCv),
    'set-point': kpa(setKpa),
    'inlet-maximum': kpa(supplyKpa * 1.2),
    ...Object.fromEntries(Object.entries(guard).map(([name, value]) => [name, kpa(value)])),
    ...(maopKpa ? { maop: kpa(maopKpa) } : {}),
  }
  // What stands on gauges of its own beside the station.
  const aside = ['pilot-supply', 'loading', 'loading-after'].map((item) => ({
    item,
    ...kpa(setKpa * 1.1),
    heldS: 300,
  }))
  const readings = [
    ...found.readings.filter((r) => !aside.some((a) => a.item === r.item)),
    ...aside,
  ]
  const verdict = judgeTest(plan, { ...found, readings, nominals })
  const item = (id: string) => verdict.items.find((i) => i.id === id)
  const value = (id: string) => Number(item(id)?.reading)
  return { verdict, item, value, found }
}
const broken = (element: string, fault: Fault['fault'], severity = 0.6): Fault[] => [
  { element, fault, severity },
]

describe('a healthy regulator passes', () => {
  for (const station of stations) {
    it.each([0.75, 1, 2, 4])(`${station.kind} of %d in`, (sizeIn) => {
      const { verdict } = run(station, [], { sizeIn })
      expect(verdict.reason).toMatch(/^Every required item/)
    })
  }
  it.each(['larkhaven-gas-at-lock-up', 'larkhaven-gas-at-flow', 'larkhaven-gas-metric'])(
    'in the school of %s',
    (pack) => {
      expect(run(service, [], { pack }).verdict.outcome).toBe('pass')
    },
  )
})

describe('a fault shows where the trade says it does', () => {
  it.each<[string, Station, Fault[], string]>([
    ['a fouled seat creeps', service, broken('regulator', 'fouled', 0.1), 'creep'],
    ['a seat full of dirt does not shut', service, broken('regulator', 'fouled', 0.9), 'lock-up'],
    ['a fouled seat creeps', district, broken('regulator', 'fouled'), 'creep'],
    ['a fouled seat creeps', reducer, broken('regulator', 'fouled', 0.1), 'creep'],
    ['a fouled seat creeps', inLine, broken('regulator', 'fouled'), 'creep'],
    ['a cut disc does not shut', dome, broken('regulator', 'disc-cut'), 'lock-up'],
    ['a nicked seat creeps', service, broken('regulator', 'seat-nicked', 0.1), 'creep'],
    ['a weak spring sets low', service, broken('regulator', 'spring-weak'), 'set'],
    ['a weak spring sets low', district, broken('regulator', 'spring-weak'), 'set'],
    [
      'a blocked sense line shuts late',
      district,
      broken('regulator', 'passage-blocked'),
      'lock-up',
    ],
    ['a stiff relief opens late', service, broken('relief', 'spring-stiff'), 'relief-start'],
    ['a weak relief opens early', service, broken('relief', 'spring-weak', 0.4), 'relief-start'],
    [
      'a relief that opens late protects nothing',
      district,
      broken('relief', 'spring-stiff'),
      'protection',
    ],
    ['a stiff slam-shut trips late', slamShut, broken('slam-shut', 'spring-stiff'), 'trip-high'],
    [
      'a weak slam-shut trips early',
      slamShut,
      broken('slam-shut', 'spring-weak', 0.4),
      'trip-high',
    ],
    ['a fouled slam-shut passes', slamShut, broken('slam-shut', 'fouled'), 'cut-off'],
    [
      'a weak monitor takes over early',
      monitored,
      broken('monitor', 'spring-weak', 0.4),
      'take-over',
    ],
    [
      'a monitor with a leaking seat creeps',
      monitored,
      broken('monitor', 'fouled', 0.1),
      'monitor-creep',
    ],
    ['a worker with a leaking seat creeps', monitored, broken('regulator', 'fouled'), 'creep'],
    ['a torn relief blows at rest', service, broken('relief', 'diaphragm-torn'), 'breath'],
  ])('%s', (_what, station, faults, item) => {
    const { verdict, item: of } = run(station, faults)
    expect(of(item)?.outcome, of(item)?.reason).toBe('fail')
    expect(verdict.outcome).toBe('fail')
  })
  it('a relief too small for its regulator fails, and is told apart from one that opens late', () => {
    const { item } = run(service, [], { reliefCv: '1' })
    expect(item('relief-start')?.outcome).toBe('pass')
    expect(item('capacity')?.outcome).toBe('fail')
  })
  it.each(stations.map((s) => [s.kind, s] as const))('a %s without damping hunts', (_, station) => {
    const healthy = run(station).item('hunting')
    expect(healthy?.outcome, healthy?.reason).toBe('pass')
    const { item } = run(station, broken('regulator', 'undamped'))
    expect(item('hunting')?.outcome, item('hunting')?.reason).toBe('fail')
  })
  it('a bent stem lets the outlet fall under load', () => {
    const healthy = run(service)
    const bent = run(service, broken('regulator', 'stem-bent', 1))
    expect(bent.value('load') / bent.value('set')).toBeLessThan(
      healthy.value('load') / healthy.value('set'),
    )
  })
  it('never reads healthier as it grows', () => {
    const held = [0, 0.05, 0.1, 0.2, 0.4, 0.8].map((severity) => {
      const { found } = run(district, severity ? broken('regulator', 'fouled', severity) : [])
      return Number(found.readings.find((r) => r.item === 'creep')?.value)
    })
    expect(held).toEqual([...held].sort((a, b) => a - b))
    const sets = [0, 0.25, 0.5, 0.75, 1].map((severity) =>
      run(service, severity ? broken('regulator', 'spring-weak', severity) : []).value('set'),
    )
    expect(sets).toEqual([...sets].sort((a, b) => b - a))
  })
})

it('a hose that was at the inlet does not push its pressure into the outlet', () => {
  const site = new RegulatorSite({
    kind: 'spring regulator',
    sizeIn: 1,
    condition: { faults: [], supplyKpa: 415 },
    nominals: { 'set-point': 3.5, 'relief-set': 4.5 },
  })
  site.advance(10)
  const before = site.pressure('body-2')
  site.connect('gauge', 'inlet-tap')
  site.move('inlet-tap', 'open')
  site.advance(10)
  expect(site.atInstrument()).toBeCloseTo(415, 0)
  site.move('inlet-tap', 'shut')
  site.connect('gauge', 'outlet-tap')
  site.move('outlet-tap', 'open')
  site.advance(10)
  expect(site.pressure('body-2')).toBeCloseTo(before, 1)
  expect(site.seen().running).toEqual([])
})

describe('the adjuster', () => {
  const settled = (turns: number) => {
    const site = new RegulatorSite({
      kind: 'spring regulator',
      sizeIn: 1,
      condition: { faults: [], supplyKpa: 300 },
      nominals: { 'set-point': 14 },
    })
    site.adjust('regulator', turns)
    site.move('shutoff-2', 'shut')
    site.move('flow-tap', 'crack')
    site.advance(600)
    return site.pressure('body-2')
  }
  it('raises the set pressure when it is turned in, and lowers it when it is turned out', () => {
    expect(settled(1)).toBeGreaterThan(settled(0) * 1.05)
    expect(settled(-1)).toBeLessThan(settled(0) * 0.95)
  })
})

import { describe, expect, it } from 'vitest'
import { testPlanOf } from '../library'
import { shippedLibrary } from '../testing/library'
import { type BasisName, bases } from './basis'
import { type DecisionRule, decisionRules } from './decision'
import {
  type Channel,
  judgeTest,
  type PackItem,
  type Reading,
  rulePackFaults,
  type TestRun,
} from '.'

const plan = testPlanOf(shippedLibrary, 'larkhaven-gas-at-flow', 'spring regulator')
const kpa = (value: string) => ({ dimension: 'gaugePressure', value, unit: 'kPa' }) as const
const gauge: Channel = {
  id: 'g',
  dimension: 'gaugePressure',
  span: 1_000,
  unit: 'kPa',
  percent: 0.02,
  of: 'reading',
}
const at = (minute: number) => new Date(Date.UTC(2026, 5, 1, 8, minute)).toISOString()
const read = (
  item: string,
  value: string,
  minute: number,
  more: Partial<Reading> = {},
): Reading => ({
  item,
  ...kpa(value),
  takenAt: at(minute),
  ...more,
})

/** A base value of 400 kPa with everything that a basis may rest on. */
const readings: readonly Reading[] = [
  read('set', '400.0', 0),
  read('lock-up', '410.0', 1),
  read('creep', '411.0', 7, { trend: { perMinute: 0.1, standard: 0.01 }, swing: 4 }),
  read('relief-start', '470.0', 8),
  read('inlet', '600.0', 9),
]
const nominals = {
  'set-point': kpa('400'),
  maop: kpa('420'),
  'inlet-maximum': kpa('620'),
  'regulator-cv': { dimension: 'flowCoefficient', value: '1', unit: 'Cv' },
  'relief-cv': { dimension: 'flowCoefficient', value: '30', unit: 'Cv' },
} as const

const tiers = [{ from: kpa('0'), percent: 20 }]
/** Of every basis one item that the readings meet by far, and what makes it miss by far. */
const items: { readonly [B in BasisName]: { readonly meets: object; readonly misses: object } } = {
  limit: { meets: { id: 'set', atMost: kpa('500') }, misses: { id: 'set', atMost: kpa('300') } },
  band: {
    meets: { id: 'set', from: kpa('300'), to: kpa('500') },
    misses: { id: 'set', from: kpa('200'), to: kpa('300') },
  },
  percent: {
    meets: { id: 'set', of: 'set-point', below: 10, above: 10 },
    misses: { id: 'lock-up', of: 'set-point', above: 1 },
  },
  tiers: {
    meets: { reading: 'relief-start', of: 'maop', tiers },
    misses: { reading: 'relief-start', of: 'maop', tiers: [{ from: kpa('0'), percent: 5 }] },
  },
  capacity: {
    meets: capacity(20),
    misses: { ...capacity(20), relief: { cv: 'regulator-cv' } },
  },
  difference: {
    meets: { minuend: 'lock-up', subtrahend: 'set', atMost: kpa('50') },
    misses: { minuend: 'lock-up', subtrahend: 'set', atMost: kpa('1') },
  },
  creep: { meets: hold(5), misses: hold(0.05) },
  rate: {
    meets: { reading: 'creep', percent: 0.5, of: 'set-point' },
    misses: { reading: 'creep', atMost: kpa('0.05') },
  },
  curve: {
    meets: points('400', '410', '20'),
    misses: points('300', '310', '20'),
  },
  spread: {
    meets: { pairs: [['set', 'lock-up']], atMost: kpa('50') },
    misses: { pairs: [['set', 'lock-up']], atMost: kpa('1') },
  },
  swing: {
    meets: { reading: 'creep', percent: 5, of: 'set-point' },
    misses: { reading: 'creep', percent: 0.5, of: 'set-point' },
  },
  order: {
    meets: { ascending: ['set', 'lock-up', 'relief-start'], apart: kpa('2') },
    misses: { ascending: ['lock-up', 'set'], apart: kpa('0.0') },
  },
  answer: {
    meets: { id: 'outside', accept: ['none'] },
    misses: { id: 'outside', accept: ['seen'] },
  },
}

function hold(percent: number) {
  return {
    id: 'creep',
    from: 'lock-up',
    over: { value: '5', unit: 'min' },
    percent,
    of: 'set-point',
  }
}
function points(a: string, b: string, most: string) {
  return {
    points: [
      { item: 'set', ideal: a },
      { item: 'lock-up', ideal: b },
    ],
    atMost: kpa(most),
  }
}
function capacity(percent: number) {
  return {
    regulator: { cv: 'regulator-cv' },
    relief: { cv: 'relief-cv' },
    inlet: 'inlet-maximum',
    inletRead: 'inlet',
    start: 'relief-start',
    fullAbove: 10,
    specificGravity: 0.6,
    gamma: 1.31,
    of: 'maop',
    tiers: [{ from: kpa('0'), percent }],
  }
}

function judged(
  basis: BasisName,
  more: object,
  decisionRule: DecisionRule,
  run: Partial<TestRun> = {},
) {
  const item = { id: 'x', title: 'X', requirement: 'required', basis, ...more } as PackItem
  const verdict = judgeTest(
    {
      procedure: plan.procedure,
      test: { ...plan.test, items: [item], contradictions: [] },
      pack: { ...plan.pack, decisionRule },
    },
    {
      readings,
      answers: [{ item: 'outside', answer: 'none', label: 'None' }],
      order: readings.map((r) => r.item),
      channels: [gauge],
      nominals,
      ...run,
    },
  )
  return verdict.items[0]!
}

const names = Object.keys(bases) as BasisName[]

describe.each(names)('a %s', (basis) => {
  it.each(decisionRules)('is decided under %s acceptance, met and missed', (rule) => {
    expect(judged(basis, items[basis].meets, rule).outcome).toBe('pass')
    expect(judged(basis, items[basis].misses, rule).outcome).toBe('fail')
  })
  if (basis !== 'answer') {
    it('says its uncertainty when its gauge is known, and asks for the gauge when it is not', () => {
      expect(Number(judged(basis, items[basis].meets, 'guarded').expanded)).toBeGreaterThan(0)
      const unknown = judged(basis, items[basis].meets, 'guarded', { channels: [] })
      // A trend has its uncertainty from its trace, whatever gauge drew it.
      if (basis === 'rate') expect(unknown.outcome).toBe('pass')
      else expect(unknown).toMatchObject({ outcome: 'not-assessed', code: 'gauge-unknown' })
    })
  }
})

describe('a count', () => {
  const count = (value: string, rule: DecisionRule, most = '0') =>
    judged(
      'limit',
      { id: 'drip', atMost: { dimension: 'frequency', value: most, unit: '/min' } },
      rule,
      { readings: [{ item: 'drip', dimension: 'frequency', value, unit: '/min' }] },
    )
  it.each(decisionRules)('is held against its limit as printed under %s acceptance', (rule) => {
    expect(count('0', rule)).toMatchObject({ outcome: 'pass', counted: true })
    expect(count('1', rule).outcome).toBe('fail')
    expect(count('0', rule).falseAccept).toBeUndefined()
    expect(count('0', rule).tur).toBeUndefined()
    expect(count('0', rule).expanded).toBeUndefined()
  })
  it('below zero is impossible', () => {
    expect(count('-3', 'simple')).toMatchObject({ outcome: 'not-assessed', code: 'impossible' })
  })
})

describe('a trend', () => {
  const settled = { reading: 'creep', since: 'lock-up', percent: 0.2, of: 'set-point' }
  const creeping = (perMinute: number, standard = 0.02) =>
    judged('rate', settled, 'simple', {
      readings: [
        read('lock-up', '410.0', 1),
        read('creep', '411.0', 7, { trend: { perMinute, standard } }),
      ],
    })
  // 0.2 % of 400 kPa a minute.
  it('that goes on is a leaking seat, and one that stops is a lock-up', () => {
    expect(creeping(0.79).outcome).toBe('pass')
    expect(creeping(0.81)).toMatchObject({ outcome: 'fail', code: 'beyond-limit', perMinute: true })
    expect(creeping(-0.81).outcome).toBe('fail')
  })
  it('that cannot be told from one that goes on is too short to tell', () => {
    expect(creeping(0.1, 0.5)).toMatchObject({ outcome: 'not-assessed', code: 'trend-too-short' })
    expect(creeping(3, 0.5).outcome).toBe('fail')
  })
  it('without a trace is told by the same reading taken twice, and never judged worse than it is', () => {
    const typed = (...values: [string, number][]) =>
      judged('rate', settled, 'simple', {
        readings: [
          read('lock-up', '410.0', 1),
          ...values.map(([value, minute]) => read('creep', value, minute)),
        ],
      })
    expect(typed(['411.0', 7]).outcome).toBe('pass')
    expect(typed(['418.0', 7])).toMatchObject({ outcome: 'not-assessed', code: 'trend-unknown' })
    expect(typed(['418.0', 7], ['418.2', 9]).outcome).toBe('pass')
    expect(typed(['418.0', 7], ['420.0', 9]).outcome).toBe('fail')
    expect(typed(['418.0', 7], ['420.0', 7])).toMatchObject({ code: 'trend-unknown' })
  })
})

describe('a swing', () => {
  it('is uncertain by the scale of its gauge and the steps of its display, not by its offset', () => {
    const found = judged('swing', items.swing.meets, 'guarded')
    // 0.02 % of 4 kPa ÷√3, and 0.1 kPa at both ends, ÷√6; twice.
    expect(Number(found.expanded)).toBeCloseTo(
      2 * Math.hypot((0.0002 * 4) / Math.sqrt(3), 0.1 / Math.sqrt(6)),
      2,
    )
  })
})

describe('a pack that could never pass', () => {
  const guarded = shippedLibrary.rulePacks.find((p) => p.id === 'larkhaven-gas-guarded')!
  const changed = (change: (item: PackItem) => object) => ({
    ...guarded,
    tests: guarded.tests.map((t) => ({
      ...t,
      items: t.items.map((i) => ({ ...i, ...change(i) }) as PackItem),
    })),
  })
  const faultsOf = (change: (item: PackItem) => object) =>
    rulePackFaults(changed(change), shippedLibrary.procedures)
  it('is refused: it requires what is read on a gauge that nobody knows', () => {
    expect(faultsOf(() => ({}))).toEqual([])
    const faults = faultsOf((i) => (i.id === 'loading-after' ? { decision: undefined } : {}))
    expect(faults.map((f) => f.message).join()).toContain('loading-after')
  })
  it('is refused: a limit is none that a reading can have', () => {
    const plenty = {
      basis: 'limit',
      atMost: { dimension: 'gaugePressure', value: '-200', unit: 'kPa' },
    }
    expect(faultsOf((i) => (i.id === 'running' ? plenty : {})).length).toBeGreaterThan(0)
    expect(faultsOf((i) => (i.id === 'lock-up' ? { above: 400 } : {})).length).toBeGreaterThan(0)
  })
})

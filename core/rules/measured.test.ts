import { describe, expect, it } from 'vitest'
import { testPlanOf } from '../library'
import { shippedLibrary } from '../testing/library'
import { testGauge } from '../testing/readings'
import { check, InvalidInput } from '../schema'
import {
  judgeTest,
  rulePackSchema,
  type Channel,
  type PackItem,
  type Reading,
  type TestRun,
} from '.'

/** The bases beyond a one-sided limit, on what a regulator and a control valve are judged by. */
const plan = testPlanOf(shippedLibrary, 'larkhaven-check-first', 'DC')
const bar = (value: string) => ({ dimension: 'gaugePressure', value, unit: 'kPa' }) as const
const outlet: Channel = {
  id: 'G-2/outlet',
  dimension: 'gaugePressure',
  percent: 0.25,
  of: 'span',
  span: 60,
  unit: 'kPa',
}
const read = (item: string, value: string, more: Partial<Reading> = {}): Reading => ({
  item,
  dimension: 'gaugePressure',
  value,
  unit: 'kPa',
  ...more,
})
function judged(
  item: object,
  readings: readonly Reading[],
  more: Partial<TestRun> = {},
  decisionRule = plan.pack.decisionRule,
) {
  const full = { id: 'x', title: 'X', requirement: 'required', ...item } as PackItem
  const steps = plan.procedure.steps.slice(0, 1)
  const verdict = judgeTest(
    {
      pack: { ...plan.pack, decisionRule },
      test: { kind: 'DC', procedure: plan.procedure.id, items: [full] },
      procedure: { ...plan.procedure, steps },
    },
    { readings, answers: [], order: readings.map((r) => r.item), channels: [outlet], ...more },
  )
  return verdict.items[0]!
}

describe('a band', () => {
  const band = { id: 'set', basis: 'band', from: bar('19.5'), to: bar('20.5') } as const
  it.each([
    ['20.0', 'pass', '0.5', 'at least'],
    ['20.4', 'pass', '0.1', 'at most'],
    ['19.5', 'pass', '0.0', 'at least'],
    ['20.6', 'fail', '-0.1', 'at most'],
    ['19.2', 'fail', '-0.3', 'at least'],
  ])('of 19.5 to 20.5 kPa, %s: %s by the nearer end', (value, outcome, margin, limitSense) => {
    expect(judged(band, [read('set', value)])).toMatchObject({ outcome, margin, limitSense })
  })
  it('is the same in another unit', () => {
    const psi = judged(band, [read('set', '2.95', { unit: 'psi' })])
    expect(psi).toMatchObject({
      outcome: 'pass',
      unit: 'psi',
      limit: '2.97',
      limitSense: 'at most',
    })
  })
})

describe('a percentage', () => {
  // EN 334: AC 5 is ± 5 % of the set point, SG 10 at most 10 % over it.
  const ac5 = { id: 'set', basis: 'percent', of: 'set-point', below: 5, above: 5 } as const
  const sg10 = { id: 'lock-up', basis: 'percent', of: 'set-point', above: 10 } as const
  const nominals = { 'set-point': bar('20') }
  it.each([
    ['19.0', 'pass'],
    ['21.0', 'pass'],
    ['18.9', 'fail'],
    ['21.1', 'fail'],
  ])('of ± 5 %% about 20 kPa, %s: %s', (value, outcome) => {
    expect(judged(ac5, [read('set', value)], { nominals }).outcome).toBe(outcome)
  })
  it('may have one end alone', () => {
    expect(judged(sg10, [read('lock-up', '22.0')], { nominals })).toMatchObject({
      outcome: 'pass',
      limit: '22.0',
      limitSense: 'at most',
    })
    expect(judged(sg10, [read('lock-up', '5')], { nominals }).outcome).toBe('pass')
    expect(judged(sg10, [read('lock-up', '22.3')], { nominals }).outcome).toBe('fail')
  })
  it('may be of another reading, as lock-up over the set that was found', () => {
    const overSet = { ...sg10, of: 'set' } as const
    expect(judged(overSet, [read('set', '19'), read('lock-up', '20.9')]).outcome).toBe('pass')
    expect(judged(overSet, [read('set', '19'), read('lock-up', '21')]).outcome).toBe('fail')
  })
  it('is as uncertain as both readings, and by a nominal value as its own alone', () => {
    const expanded = (item: object, more = {}) =>
      Number(judged(item, [read('set', '20'), read('lock-up', '21')], more).expanded)
    const alone = Number(
      judged({ id: 'lock-up', basis: 'limit', atMost: bar('30') }, [read('lock-up', '21')])
        .expanded,
    )
    expect(expanded(sg10, { nominals })).toBeCloseTo(alone, 2)
    // The end is 1.1 × the set that was read.
    expect(expanded({ ...sg10, of: 'set' })).toBeCloseTo(alone * Math.hypot(1, 1.1), 1)
    expect(expanded({ ...sg10, of: 'set', above: 100 })).toBeCloseTo(alone * Math.hypot(1, 2), 1)
    const unknown = judged({ ...sg10, of: 'set' }, [read('set', '20'), read('lock-up', '21')], {
      channels: [],
    })
    expect(unknown.expanded).toBeUndefined()
  })
  it('of what nobody knows is not assessed', () => {
    expect(judged(ac5, [read('set', '20')])).toMatchObject({
      outcome: 'not-assessed',
      reason: 'set point is not known, of which it is a percentage',
    })
    const length = { dimension: 'length', value: '20', unit: 'mm' } as const
    expect(judged(ac5, [read('set', '20')], { nominals: { 'set-point': length } }).outcome).toBe(
      'not-assessed',
    )
  })
})

describe('a rate', () => {
  const creep = { id: 'lock-up', basis: 'rate', atMost: bar('0.1') } as const
  it('is what the trace says, rising or falling', () => {
    const at = (driftPerMinute: number) =>
      judged(creep, [read('lock-up', '22.00', { driftPerMinute })])
    expect(at(0.05).outcome).toBe('pass')
    expect(at(-0.05).outcome).toBe('pass')
    expect(at(0.3)).toMatchObject({ outcome: 'fail', reading: '0.300', limit: '0.100' })
    expect(at(0.3)).toMatchObject({ code: 'beyond-limit', perMinute: true })
    expect(at(-0.3).outcome).toBe('fail')
  })
  it('that was not recorded is not assessed, however good the reading', () => {
    expect(judged(creep, [read('lock-up', '22')])).toMatchObject({
      outcome: 'not-assessed',
      code: 'trend-unknown',
    })
    expect(judged(creep, []).code).toBe('not-recorded')
  })
})

describe('a curve', () => {
  const travel = (value: string) => ({ dimension: 'length', value, unit: 'mm' }) as const
  const curve = {
    id: 'stroke',
    basis: 'curve',
    atMost: travel('0.5'),
    points: [
      { item: 'at-0', ideal: '0' },
      { item: 'at-50', ideal: '10' },
      { item: 'at-100', ideal: '20' },
    ],
  } as const
  const points = (...values: string[]) =>
    ['at-0', 'at-50', 'at-100'].flatMap((item, n): Reading[] =>
      values[n] ? [{ item, ...travel(values[n]) }] : [],
    )
  it('is as bad as its worst point, on either side', () => {
    expect(judged(curve, points('0.1', '9.6', '20.3'))).toMatchObject({
      outcome: 'pass',
      reading: '0.4',
      limit: '0.5',
    })
    expect(judged(curve, points('0.1', '10.7', '20.3'))).toMatchObject({
      outcome: 'fail',
      reading: '0.7',
    })
  })
  it('takes points in other units', () => {
    const inches: Reading = { item: 'at-50', dimension: 'length', value: '0.42', unit: 'in' }
    const [first, , last] = points('0.0', '10', '20.0')
    // 0.42 in is 10.668 mm.
    expect(judged(curve, [first!, inches, last!]).outcome).toBe('fail')
  })
  it('is not assessed while a point is missing or of another quantity', () => {
    expect(judged(curve, points('0.1', '9.6'))).toMatchObject({
      outcome: 'not-assessed',
      reason: 'needs a reading at every point',
    })
    expect(judged(curve, [...points('0.1', '9.6'), read('at-100', '20')]).outcome).toBe(
      'not-assessed',
    )
  })
})

describe('an order', () => {
  const stack = {
    id: 'stack',
    basis: 'order',
    ascending: ['set-point', 'lock-up', 'relief'],
    apart: bar('1.0'),
  } as const
  const nominals = { 'set-point': bar('20') }
  it('wants every neighbour apart: the closest two decide', () => {
    const apart = judged(stack, [read('lock-up', '22.0'), read('relief', '23.5')], { nominals })
    expect(apart).toMatchObject({ outcome: 'pass', reading: '1.5', margin: '0.5' })
    const close = judged(stack, [read('lock-up', '22.0'), read('relief', '22.8')], { nominals })
    expect(close).toMatchObject({ outcome: 'fail', reading: '0.8' })
  })
  it('fails where two have changed places', () => {
    const wrong = judged(stack, [read('lock-up', '22.0'), read('relief', '21.0')], { nominals })
    expect(wrong).toMatchObject({ outcome: 'fail', reading: '-1.0' })
  })
  it('names what it needs and does not have', () => {
    expect(judged(stack, [read('lock-up', '22')], { nominals })).toMatchObject({
      outcome: 'not-assessed',
      reason: 'needs relief',
    })
    expect(judged(stack, [read('lock-up', '22'), read('relief', '24')]).reason).toBe(
      'needs set point',
    )
  })
  it('is as uncertain as the two that decide', () => {
    const found = judged(stack, [read('lock-up', '22.0'), read('relief', '23.5')])
    expect(found.expanded).toBeUndefined()
    const two = { ...stack, ascending: ['lock-up', 'relief'] } as const
    const sure = judged(two, [read('lock-up', '22.0'), read('relief', '23.5')])
    const one = judged({ id: 'relief', basis: 'limit', atLeast: bar('20') }, [
      read('relief', '23.5'),
    ])
    expect(Number(sure.expanded)).toBeCloseTo(Number(one.expanded) * Math.SQRT2, 1)
  })
  it('is the same in whatever unit its readings were shown, and no less sure', () => {
    const two = { ...stack, ascending: ['lock-up', 'relief'] } as const
    const kPa = judged(two, [read('lock-up', '22.06'), read('relief', '24.13')])
    const psi = judged(two, [
      read('lock-up', '3.20', { unit: 'psi' }),
      read('relief', '3.50', { unit: 'psi' }),
    ])
    expect(Number(psi.reading)).toBeCloseTo(Number(kPa.reading), 1)
    expect(Number(psi.expanded) / Number(kPa.expanded)).toBeCloseTo(1, 0)
  })
  it('by a nominal value is as uncertain as the reading beside it', () => {
    const one = { ...stack, ascending: ['set-point', 'lock-up'] } as const
    const found = judged(one, [read('lock-up', '22.0')], { nominals })
    const limit = judged({ id: 'lock-up', basis: 'limit', atLeast: bar('20') }, [
      read('lock-up', '22.0'),
    ])
    expect(Number(found.expanded)).toBeCloseTo(Number(limit.expanded), 2)
  })
})

describe('several instruments in one run', () => {
  const limit = { id: 'lock-up', basis: 'limit', atMost: bar('30') } as const
  const coarse: Channel = { ...outlet, id: 'G-3/inlet', percent: 2, span: 1000 }
  it('each reading is as sure as the channel that it names', () => {
    const on = (channel?: string) =>
      judged(limit, [read('lock-up', '22', channel ? { channel } : {})], {
        channels: [coarse, outlet],
      })
    expect(Number(on('G-2/outlet').expanded)).toBeLessThan(Number(on('G-3/inlet').expanded))
    expect(on().expanded).toBe(on('G-3/inlet').expanded)
  })
  it('knows a length read by hand as well as a hand can read it', () => {
    const travel = {
      id: 'travel',
      basis: 'limit',
      atMost: { dimension: 'length', value: '30', unit: 'mm' },
    }
    const found = judged(travel, [{ item: 'travel', dimension: 'length', value: '20', unit: 'mm' }])
    expect(found).toMatchObject({ outcome: 'pass' })
    // ± 0.5 mm by hand (÷√3) and a whole millimeter (÷√12), twice.
    expect(Number(found.expanded)).toBeCloseTo(
      2 * Math.hypot(0.5 / Math.sqrt(3), 1 / Math.sqrt(12)),
      1,
    )
  })
  it('knows nothing of a reading that neither a channel nor a hand can have shown', () => {
    const warm = {
      id: 'x',
      basis: 'limit',
      atMost: { dimension: 'temperature', value: '30', unit: '°C' },
    }
    const at = (rule: 'simple' | 'guarded') =>
      judged(warm, [{ item: 'x', dimension: 'temperature', value: '20', unit: '°C' }], {}, rule)
    expect(at('simple')).toMatchObject({ outcome: 'pass' })
    expect(at('simple').expanded).toBeUndefined()
    expect(at('guarded')).toMatchObject({ outcome: 'not-assessed', code: 'gauge-unknown' })
  })
  it('a range may begin below zero, and nothing lies outside of it', () => {
    const compound: Channel = { ...outlet, from: -30, span: 90 }
    const at = (value: string) => judged(limit, [read('lock-up', value)], { channels: [compound] })
    expect(at('-10').outcome).toBe('pass')
    expect(at('-31')).toMatchObject({ outcome: 'not-assessed' })
    expect(at('-31').reason).toContain('begins at -30 kPa')
    expect(at('61').reason).toContain('ends at 60 kPa')
    expect(judged(limit, [read('lock-up', '-10')], { channels: [testGauge] }).outcome).toBe(
      'not-assessed',
    )
  })
})

describe('an item of a pack', () => {
  const pack = shippedLibrary.rulePacks[0]!
  const faultsOf = (item: unknown) => {
    try {
      check(rulePackSchema, { ...pack, tests: [{ ...pack.tests[0], items: [item] }] })
      return ''
    } catch (error) {
      if (!(error instanceof InvalidInput)) throw error
      return error.message
    }
  }
  const about = { id: 'x', title: 'X', requirement: 'required' }
  it('says what its basis wants and nothing else', () => {
    expect(faultsOf({ ...about, basis: 'limit', atLeast: bar('1') })).toBe('')
    expect(faultsOf({ ...about, basis: 'guess' })).toMatch(/must be one of limit, band/)
    expect(faultsOf({ ...about, basis: 'band', from: bar('2'), to: bar('1') })).toMatch(/band runs/)
    expect(faultsOf({ ...about, basis: 'percent', of: 'set-point' })).toMatch(/“below”, “above”/)
    expect(faultsOf({ ...about, basis: 'limit', atLeast: bar('1'), accept: ['a'] })).toMatch(
      /has no field “accept”/,
    )
    expect(faultsOf({ ...about, basis: 'answer' })).toMatch(/accept/)
    expect(faultsOf({ ...about, basis: 'difference', atLeast: bar('1') })).toMatch(/minuend/)
  })
})

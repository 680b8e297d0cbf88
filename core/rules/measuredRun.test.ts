import { describe, expect, it } from 'vitest'
import type { NominalName } from '../apparatus'
import { testPlanOf } from '../library'
import type { AnyQuantity } from '../quantity'
import { shippedLibrary } from '../testing/library'
import { capacityFor, judgeTest, type Reading, type TestRun } from '.'

const PLAN = testPlanOf(shippedLibrary, 'larkhaven-gas-at-flow', 'spring regulator')
const psi = (value: string): AnyQuantity => ({ dimension: 'gaugePressure', value, unit: 'psi' })
const cv = (value: string) => ({ dimension: 'flowCoefficient' as const, value, unit: 'Cv' })
const NOMINALS: Readonly<Partial<Record<NominalName, AnyQuantity>>> = {
  'set-point': psi('60'),
  'relief-set': psi('66'),
  maop: psi('60'),
  'inlet-maximum': psi('150'),
  'regulator-cv': cv('0.5'),
  'relief-cv': cv('40'),
}
const VALUES = {
  inlet: '90.0',
  running: '60.1',
  set: '60.2',
  'lock-up': '61.5',
  creep: '61.7',
  'half-load': '59.1',
  load: '58.0',
  'relief-start': '65.5',
  reseat: '63.5',
}
const at = (minute: number, second = 0) =>
  `2026-06-01T08:${String(minute).padStart(2, '0')}:${String(second).padStart(2, '0')}.000Z`

/** A run of a gas regulator, minute by minute, with other values, units or times where they are given. */
function judged(
  other: Readonly<Record<string, Partial<Reading>>> = {},
  nominals: Readonly<Partial<Record<NominalName, AnyQuantity | undefined>>> = {},
  more: Partial<TestRun> = {},
) {
  const readings = Object.entries(VALUES).map(([item, value], n): Reading => ({
    item,
    ...psi(value),
    takenAt: at(n + (n > 3 ? 5 : 0)),
    ...other[item],
  }))
  const answers = [
    { item: 'vent', answer: 'clear', label: 'Clear' },
    { item: 'breath', answer: 'still', label: 'Still' },
    { item: 'outside', answer: 'none', label: 'None' },
  ]
  const run = {
    readings,
    answers,
    order: [...Object.keys(VALUES), 'vent', 'breath', 'outside'],
    nominals: { ...NOMINALS, ...nominals },
    ...more,
  } as TestRun
  const verdict = judgeTest(PLAN, run)
  return { verdict, item: (id: string) => verdict.items.find((i) => i.id === id) }
}

describe('a run of a gas regulator', () => {
  it('passes in order', () => {
    expect(judged().verdict.reason).toBe('Every required item meets its limit.')
  })
  it('means the same in SI units', () => {
    const kpa = Object.fromEntries(
      Object.entries(VALUES).map(([item, value]) => [
        item,
        { value: (Number(value) * 6.894757293168).toFixed(1), unit: 'kPa' },
      ]),
    )
    expect(judged(kpa).verdict.outcome).toBe('pass')
    expect(judged({ ...kpa, set: { value: '370', unit: 'kPa' } }).item('set')?.outcome).toBe('fail')
  })
  it.each([
    ['set', '53.9', 'fail'],
    ['set', '54.0', 'pass'],
    ['load', '48.1', 'fail'],
    ['half-load', '48.1', 'fail'],
    ['inlet', '151.0', 'fail'],
    ['lock-up', '72.1', 'fail'],
    ['relief-start', '74.0', 'fail'],
    ['reseat', '52.0', 'fail'],
  ])('%s at %s psi: %s', (item, value, outcome) => {
    const { verdict, item: itemOf } = judged({ [item]: { value } })
    expect(itemOf(item)?.outcome).toBe(outcome)
    expect(verdict.outcome).toBe(outcome)
  })
  it.each([
    ['66.0', 'pass'],
    ['66.1', 'fail'],
  ])('set at %s psi with its lock-up above it: %s', (value, outcome) => {
    const high = { set: { value }, 'lock-up': { value: '66.6' }, creep: { value: '66.6' } }
    expect(judged(high).item('set')?.outcome).toBe(outcome)
  })
  it('takes the classes of the equipment before those of the pack', () => {
    const fine = { 'accuracy-class': { dimension: 'fraction', value: '2.5', unit: '%' } } as const
    const set = { value: '61.8' }
    const up = { value: '62.5' }
    const high = { set, 'lock-up': up, creep: up }
    expect(judged(high).item('set')?.outcome).toBe('pass')
    expect(judged(high, fine).item('set')?.outcome).toBe('fail')
  })
  it('does not assess what goes by a nominal value that nobody knows', () => {
    expect(judged({}, { 'set-point': undefined }).item('set')).toMatchObject({
      outcome: 'not-assessed',
      code: 'needs-nominal',
      params: { name: 'set-point' },
    })
    expect(judged({}, { maop: undefined }).verdict.outcome).toBe('not-assessed')
  })
  it('wants its protection in order', () => {
    const { item } = judged({ reseat: { value: '61.0' } })
    expect(item('stack')?.outcome).toBe('fail')
  })
  it('does not believe an outlet above the inlet', () => {
    const { verdict, item } = judged({ inlet: { value: '55.0' } })
    expect(item('set')?.outcome).toBe('not-assessed')
    expect(item('set')?.code).toBe('contradiction')
    expect(verdict.outcome).toBe('not-assessed')
  })
  it.each(['running', 'set', 'lock-up', 'creep', 'half-load', 'load'])(
    'does not believe %s above the inlet',
    (name) => {
      const { item, verdict } = judged({ inlet: { value: '64.0' }, [name]: { value: '64.1' } })
      expect(item(name)).toMatchObject({ outcome: 'not-assessed', code: 'contradiction' })
      expect(item(name)?.params).toMatchObject({ higher: name, lower: 'inlet' })
      expect(verdict.outcome).not.toBe('pass')
    },
  )
  it.each([
    // U of the difference is about 0.5 psi: 0.5 % of 61 psi twice, ÷√3, twice.
    ['61.4', 'equal-within-uncertainty'],
    ['61.5', 'equal-within-uncertainty'],
    ['61.1', 'equal-within-uncertainty'],
    ['59.0', 'contradiction'],
  ])('does not believe a lock-up of %s at or under a set of 61.5: %s', (lockUp, code) => {
    const gauge = { id: 'g', dimension: 'gaugePressure', span: 100, unit: 'psi' } as const
    const channels = [{ ...gauge, percent: 0.5, of: 'reading' as const }]
    const readings = {
      set: { value: '61.5' },
      'lock-up': { value: lockUp },
      creep: { value: lockUp },
    }
    const { item, verdict } = judged(readings, {}, { channels })
    expect(item('set')).toMatchObject({ outcome: 'not-assessed', code })
    expect(item('lock-up')).toMatchObject({ outcome: 'not-assessed', code })
    expect(item('stack')).toMatchObject({ outcome: 'not-assessed', code: 'rests-on-blocked' })
    expect(verdict.outcome).toBe('not-assessed')
  })
})

describe('creep', () => {
  it('is a rise over the whole hold', () => {
    expect(judged({ creep: { value: '62.8' } }).item('creep')).toMatchObject({
      outcome: 'fail',
      reading: '1.3',
    })
  })
  it('is no creep that was held too short', () => {
    expect(judged({ creep: { takenAt: at(4) } }).item('creep')).toMatchObject({
      outcome: 'not-assessed',
      code: 'held-too-short',
      params: { heldS: 60, wantedS: 300 },
    })
  })
  it('never lets a claimed time outweigh the times of the entries', () => {
    const claim = (minute: number, heldS: number) =>
      judged({ creep: { takenAt: at(minute), heldS } }).item('creep')
    expect(claim(4, 300)).toMatchObject({ code: 'held-too-short', params: { heldS: 60 } })
    expect(claim(9, 200)).toMatchObject({ code: 'held-too-short', params: { heldS: 200 } })
    expect(claim(9, 340)).toMatchObject({ outcome: 'pass', heldS: 340 })
  })
  it('says that the end was read before the beginning', () => {
    expect(judged({ creep: { takenAt: at(2) } }).item('creep')).toMatchObject({
      outcome: 'not-assessed',
      code: 'hold-out-of-order',
    })
  })
  it('wants the whole time, to the second in which it is pressed', () => {
    const held = (heldS: number) => judged({ creep: { heldS } }).item('creep')?.outcome
    expect(held(300)).toBe('pass')
    expect(held(299)).toBe('pass')
    expect(held(298)).toBe('not-assessed')
  })
  it('is not known where nothing says how long it was held', () => {
    const { item } = judged({ creep: { takenAt: undefined as never } })
    expect(item('creep')?.code).toBe('hold-unknown')
    expect(judged({ 'lock-up': { takenAt: undefined as never } }).item('creep')?.outcome).toBe(
      'not-assessed',
    )
  })
  it('has its limit in percent of the set point, with a digit more than is read', () => {
    expect(judged({ creep: { value: '62.7' } }).item('creep')).toMatchObject({
      outcome: 'pass',
      reading: '1.2',
      limit: '1.20',
    })
    const { item } = judged({}, { 'set-point': undefined })
    expect(item('creep')?.reason).toBe('set point is not known, of which it is a percentage')
  })
  it('rests on the reading at its beginning', () => {
    expect(
      judged({ inlet: { value: '61.6' }, 'lock-up': { value: '61.65' } }).item('creep'),
    ).toMatchObject({
      code: 'contradiction',
    })
    expect(judged({ set: { value: '61.55' } }).item('creep')).toMatchObject({
      code: 'rests-on-blocked',
      params: { item: 'lock-up', because: 'contradiction' },
    })
  })
  it('is told by the coarser of its two scales', () => {
    const on = (lockUp: string, end: string, set: string) =>
      judged(
        { set: { value: set }, 'lock-up': { value: lockUp }, creep: { value: end } },
        { 'set-point': psi(set) },
      )
    expect(on('51', '51', '50').item('creep')?.outcome).toBe('pass')
    expect(on('41', '41.2', '40').item('creep')?.code).toBe('too-coarse')
    expect(on('41.2', '41', '40').item('creep')?.code).toBe('too-coarse')
  })
  it('falls too where something leaks out', () => {
    expect(judged({ creep: { value: '59.9' } }).item('creep')?.outcome).toBe('fail')
  })
  it('is not told on a scale too coarse for it', () => {
    const low = { 'set-point': psi('0.25'), 'relief-set': psi('0.4'), maop: psi('0.3') }
    const { item } = judged(
      {
        set: { value: '0.25' },
        'lock-up': { value: '0.26' },
        creep: { value: '0.26' },
      },
      low,
    )
    expect(item('creep')?.reason).toMatch(/too coarse to tell/)
    expect(item('creep')?.outcome).toBe('not-assessed')
  })
  it('says nothing when the lock-up went past its class at once', () => {
    const { verdict, item } = judged({ 'lock-up': { value: '75.0' }, creep: { value: '75.0' } })
    expect(item('creep')?.outcome).toBe('not-assessed')
    expect(verdict.outcome).not.toBe('pass')
  })
})

describe('the hold of air that cools', () => {
  const plan = testPlanOf(shippedLibrary, 'larkhaven-valves-and-actuators', 'actuator')
  const celsius = (item: string, value: string) => ({
    item,
    dimension: 'temperature' as const,
    value,
    unit: '°C',
    takenAt: at(8),
  })
  const held = (end: string, first: string | null, last: string) => {
    const readings: Reading[] = [
      { item: 'supply-read', ...psi('80.0'), takenAt: at(0) },
      { item: 'hold-start', ...psi('60.0'), takenAt: at(1) },
      ...(first ? [celsius('temp-start', first)] : []),
      { item: 'hold-end', ...psi(end), takenAt: at(7) },
      celsius('temp-end', last),
    ]
    const order = readings.map((r) => r.item)
    const nominals = { supply: psi('80') }
    const verdict = judgeTest(plan, { readings, answers: [], order, nominals })
    return verdict.items.find((i) => i.id === 'hold-end')
  }
  it('takes off what the temperature did: p·T1/T2 in absolute terms', () => {
    // (57.7 + 14.696) psi · 303.15 K / 293.15 K − 14.696 psi = 60.17 psi: it lost nothing.
    expect(held('57.7', '30.0', '20.0')).toMatchObject({ outcome: 'pass', reading: '0.2' })
    // Without the cooling the same fall is 3.8 % of 60 psi.
    expect(held('57.7', '20.0', '20.0')).toMatchObject({ outcome: 'fail', reading: '2.3' })
  })
  it('does not let air that warms hide a leak', () => {
    expect(held('60.0', '20.0', '30.0')?.outcome).toBe('fail')
  })
  it('is not told without the temperature at both ends', () => {
    expect(held('60.0', null, '20.0')).toMatchObject({
      outcome: 'not-assessed',
      code: 'needs-readings',
    })
  })
})

describe('hunting', () => {
  const hunting = (swing?: number) =>
    judged({ load: swing === undefined ? {} : { swing } }).item('hunting')
  it('is a swing of more than its percentage of the set point', () => {
    // 5 % of 60 psi.
    expect(hunting(2.9)?.outcome).toBe('pass')
    expect(hunting(3.1)).toMatchObject({ outcome: 'fail', limit: '3.00' })
  })
  it('is not assessed where nobody watched the trace', () => {
    expect(hunting()?.outcome).toBe('not-assessed')
  })
  it('is a remark, which the whole does not hang on', () => {
    expect(judged({ load: { swing: 9 } }).verdict).toMatchObject({
      outcome: 'pass',
      advisoriesOut: 1,
    })
  })
})

describe('the limit of what lies behind', () => {
  // 49 CFR 192.201 (a) (2): from 60 psig 10 %, from 12 psig 6 psi, under it 50 %.
  it.each([
    ['100', '110.00'],
    ['60', '66.00'],
    ['59', '65.00'],
    ['12', '18.00'],
    ['11', '16.50'],
  ])('MAOP %s psi: %s psi', (maop, limit) => {
    const protection = judged({}, { maop: psi(maop) }).item('protection')
    expect(Number(protection?.limit)).toBeCloseTo(Number(limit), 2)
  })
  it('is the pressure of 75 % of yield where that is lower', () => {
    const { item } = judged({}, { maop: psi('100'), 'yield-limit': psi('64') })
    expect(item('protection')).toMatchObject({ outcome: 'fail', limitSense: 'at most' })
    expect(Number(item('protection')?.limit)).toBeCloseTo(64, 2)
  })
})

describe('a gauge of the equipment’s own', () => {
  it('lends a reading neither the range nor the accuracy of the test gauge', () => {
    const gauge = {
      id: 'G-1/main',
      dimension: 'gaugePressure',
      span: 70,
      unit: 'psi',
      percent: 0.5,
      of: 'span',
    } as const
    const plan = testPlanOf(shippedLibrary, 'larkhaven-gas-at-flow', 'pilot regulator')
    const read = (channel: string) =>
      judgeTest(plan, {
        readings: [{ item: 'pilot-supply', ...psi('90'), channel }],
        answers: [],
        order: ['pilot-supply'],
        channels: [gauge],
        nominals: NOMINALS,
      } as TestRun).items.find((i) => i.id === 'pilot-supply')
    expect(read('G-1/main')?.outcome).toBe('not-assessed')
    expect(read('aside')).toMatchObject({ outcome: 'pass' })
    expect(read('aside')?.expanded).toBeUndefined()
  })
})

describe('a relief against its regulator failed wide open', () => {
  const wide = { 'regulator-cv': cv('1'), 'relief-cv': cv('3'), maop: psi('35') }
  const balance = (
    nominals: Readonly<Partial<Record<NominalName, AnyQuantity | undefined>>> = {},
    start = '30',
  ) => judged({ 'relief-start': { value: start } }, { ...wide, ...nominals }).item('capacity')
  it('balances where both are choked and fully open: absolute pressures as the coefficients', () => {
    // 164.696 psia · 1 ÷ 3 = 54.899 psia, which is 40.20 psig.
    expect(Number(balance()?.reading)).toBeCloseTo(40.2, 1)
  })
  it('holds under the limit of the system and no further', () => {
    expect(balance({ maop: psi('35') })?.outcome).toBe('pass')
    expect(balance({ maop: psi('34') })?.outcome).toBe('fail')
    expect(balance({ 'yield-limit': psi('39') })?.outcome).toBe('fail')
  })
  it('means the same with Kv', () => {
    const kv = (value: string) => ({ dimension: 'flowCoefficient' as const, value, unit: 'Kv' })
    const same = balance({ 'regulator-cv': kv('0.865'), 'relief-cv': kv('2.595') })
    expect(same?.reading).toBe(balance()?.reading)
  })
  it('means the same with Cg and C1, choked: √(520/(G·T))·Cg·p1', () => {
    const of = (name: 'regulator' | 'relief', cg: string) => ({
      [`${name}-cv`]: undefined,
      [`${name}-cg`]: { dimension: 'gasCoefficient' as const, value: cg, unit: 'Cg' },
      [`${name}-c1`]: { dimension: 'coefficientRatio' as const, value: '28', unit: 'C1' },
    })
    // 3417/28·√0.667 is over 90°, so both are choked: the balance hangs on the ratio of the coefficients alone.
    const found = balance({ ...of('regulator', '100'), ...of('relief', '300') })
    expect(Number(found?.reading)).toBeCloseTo(40.2, 1)
  })
  it('is not assessed where Cv, Cg and C1 do not belong together', () => {
    const both = (cg: string) =>
      balance({
        'regulator-cg': { dimension: 'gasCoefficient', value: cg, unit: 'Cg' },
        'regulator-c1': { dimension: 'coefficientRatio', value: '33', unit: 'C1' },
      })
    expect(both('33')?.outcome).toBe('pass')
    expect(both('34')?.outcome).toBe('pass')
    expect(both('40')).toMatchObject({
      outcome: 'not-assessed',
      reason: expect.stringContaining('regulator do not belong together') as string,
    })
  })
  it('rises with the regulator and falls with the relief, never the other way', () => {
    const at = (regulator: string, relief: string) =>
      Number(balance({ 'regulator-cv': cv(regulator), 'relief-cv': cv(relief) })?.reading)
    const byRegulator = ['0.5', '1', '2', '4'].map((r) => at(r, '3'))
    const byRelief = ['1', '2', '4', '8'].map((r) => at('1', r))
    expect(byRegulator).toEqual([...byRegulator].sort((a, b) => a - b))
    expect(byRelief).toEqual([...byRelief].sort((a, b) => b - a))
  })
  it('says what it lacks: a reading, a tier of the pack, or everything', () => {
    const item = PLAN.test.items.find((i) => i.basis === 'capacity')
    if (item?.basis !== 'capacity') throw new Error('the pack has no such item')
    const bare = { readings: [], answers: [], order: [] }
    const rated = { ...NOMINALS, ...wide } as Record<string, AnyQuantity>
    const noTier = { ...rated, maop: { ...psi('35'), dimension: 'absolutePressure' as const } }
    const start = [
      { item: 'relief-start', ...psi('30') },
      { item: 'inlet', ...psi('90') },
    ]
    expect(capacityFor(item, bare)).toMatchObject({
      missing: { code: 'needs-nominal', params: { name: 'inlet-maximum' } },
    })
    expect(capacityFor(item, { ...bare, nominals: rated })).toMatchObject({
      missing: { code: 'needs-readings', params: { items: 'relief-start' } },
    })
    expect(capacityFor(item, { ...bare, readings: start, nominals: noTier })).toMatchObject({
      missing: { code: 'no-tier' },
    })
  })
  it.each(['regulator-cv', 'relief-cv', 'inlet-maximum', 'maop'] as const)(
    'is not assessed, and nothing passes, without %s',
    (name) => {
      expect(balance({ [name]: undefined })).toMatchObject({ outcome: 'not-assessed' })
      expect(judged({}, { [name]: undefined }).verdict.outcome).toBe('not-assessed')
    },
  )
})

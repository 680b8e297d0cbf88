import { describe, expect, it } from 'vitest'
import { testPlanOf } from '../library'
import type { PackTest, RulePack } from './pack'
import type { PackItem } from './basis'
import type { ProcedureStep } from '../procedure'
import { shippedLibrary } from '../testing/library'
import { readingOf as reading, testGauge as gauge } from '../testing/readings'
import {
  type Answer,
  falseAcceptProbability,
  headCorrection,
  judgeTest,
  type Reading,
  type TestRun,
} from '.'
import { orderFaults } from './order'

const withoutGauge = { channels: [] } as Partial<TestRun>
const limited = (id: string, more: Partial<PackItem<'limit'>> = {}): PackItem => ({
  id,
  title: `Item ${id}`,
  basis: 'limit',
  requirement: 'required',
  atLeast: { dimension: 'differential', value: '1.0', unit: 'psi' },
  ...more,
})
const step = (id: string, record?: Partial<ProcedureStep['record']>) =>
  ({
    id,
    title: id,
    why: '',
    record: { item: id, ask: 'reading', title: id, ...record },
  }) as ProcedureStep

/** An invented test; everything that was taken stands in the order in which it is given. */
function judge(
  items: PackItem[],
  entries: (Reading | Answer)[],
  more: {
    run?: Partial<TestRun>
    pack?: Partial<RulePack>
    test?: Partial<PackTest>
    steps?: ProcedureStep[]
  } = {},
) {
  const { pack, test, procedure } = testPlanOf(shippedLibrary, 'larkhaven-check-first', 'DC')
  return judgeTest(
    {
      pack: { ...pack, ...more.pack },
      test: { ...test, items, contradictions: [], ...more.test },
      procedure: { ...procedure, steps: more.steps ?? items.map((i) => step(i.id)) },
    },
    {
      readings: entries.filter((e): e is Reading => 'value' in e),
      answers: entries.filter((e): e is Answer => 'answer' in e),
      order: entries.map((e) => e.item),
      channels: [gauge],
      ...more.run,
    },
  )
}

describe('order', () => {
  const items = [limited('a'), limited('c', { after: ['b'] }), limited('b', { after: ['a'] })]
  const test: PackTest = { kind: 'DC', procedure: 'p', items }
  const procedure = { steps: ['a', 'b', 'c'].map((id) => step(id)) }
  const faults = (order: string[], taken = ['a', 'b', 'c']) =>
    orderFaults(test, procedure, {
      readings: taken.map((id) => reading(id, '2.0')),
      answers: [],
      order,
    })
  it('is right as the pack wants it', () => {
    expect(faults(['a', 'b', 'c']).size).toBe(0)
  })
  it('names what to take again in the order of the procedure, however the pack lists it', () => {
    expect(faults(['b', 'a', 'c']).get('a')).toMatchObject({
      code: 'taken-out-of-order',
      params: { first: 'a', then: 'b', again: 'a b c' },
    })
  })
  it.each([['b', 'c'].join(), ['a', 'c'].join()])(
    'of two that were taken is unknown when only one has its place: %s',
    (order) => {
      const found = faults(order.split(','))
      expect(found.get('b')?.code).toBe('order-unknown')
      expect([...found.keys()].length).toBeGreaterThan(1)
    },
  )
  it('of what was not taken is no fault', () => {
    expect(faults(['c'], ['c']).size).toBe(0)
    expect(faults(['b'], ['b']).size).toBe(0)
  })
})

describe('probability of a false acceptance', () => {
  it('is that of the normal distribution beyond the margin', () => {
    // One standard deviation: 15.87 %; two: 2.28 %.
    expect(falseAcceptProbability(0.1, 0.1)).toBeCloseTo(0.1587, 4)
    expect(falseAcceptProbability(0.1, 0.05)).toBeCloseTo(0.0228, 4)
    expect(falseAcceptProbability(0, 0.1)).toBeCloseTo(0.5, 6)
  })
  it('is none where nothing is uncertain, on the limit too', () => {
    expect(falseAcceptProbability(0, 0)).toBe(0)
  })
})

describe('a column of water', () => {
  it('counts with its ± 2 cm, in the unit of the reading', () => {
    const { add, halfWidth } = headCorrection(reading('x', '1.0', { gaugeAbovePortM: 0.5 }))
    expect(add).toBeCloseTo((9.80665 / 6.894757) * 0.5, 6)
    expect(halfWidth).toBeCloseTo((9.80665 / 6.894757) * 0.02, 6)
  })
  it('is nothing to what is no pressure', () => {
    const angle = { dimension: 'temperature', unit: '°C', gaugeAbovePortM: 0.5 } as const
    expect(() => headCorrection(reading('x', '1.0', angle as Partial<Reading>))).toThrow(
      /belongs to a pressure/,
    )
  })
})

describe('what a limited item says', () => {
  it('keeps the digits of the limit in its own unit, and the usual ones elsewhere', () => {
    const fine = limited('a', {
      atLeast: { dimension: 'differential', value: '1.00', unit: 'psi' },
    })
    expect(judge([fine], [reading('a', '1.4')]).items[0]?.limit).toBe('1.00')
    const kpa = judge([fine], [reading('a', '9.6', { unit: 'kPa' })]).items[0]
    expect(kpa).toMatchObject({ limit: '6.9', unit: 'kPa', outcome: 'pass' })
  })
  it('names by how much the gauge is unsure, with a digit more than the reading', () => {
    const rule = { decisionRule: 'guarded' } as const
    const found = judge([limited('a')], [reading('a', '1.0')], { pack: rule }).items[0]
    // U = 2 · √((0.0375/√3)² + (0.1/√12)²) = 0.07 psi
    expect(found?.reason).toMatch(
      /meets 1\.0 psid by 0\.0, less than the uncertainty of 0\.07 psid/,
    )
    expect(found).toMatchObject({ outcome: 'pass-uncertain', expanded: '0.07' })
  })
  it('says nothing of certainty without a gauge, and is not assessed where the rule needs one', () => {
    const none = withoutGauge
    const simple = judge([limited('a')], [reading('a', '2.0')], { run: none }).items[0]
    expect(simple).toMatchObject({ outcome: 'pass', simple: 'pass' })
    expect(simple).not.toHaveProperty('guarded')
    expect(simple).not.toHaveProperty('tur')
    const guarded = judge([limited('a')], [reading('a', '2.0')], {
      run: none,
      pack: { decisionRule: 'guarded' },
    })
    expect(guarded.items[0]).toMatchObject({ outcome: 'not-assessed' })
    expect(guarded.reason).toMatch(/choose the gauge/)
  })
  it('is questioned when its gauge is too coarse for its limit, and only then', () => {
    const coarse = { channels: [{ ...gauge, percent: 10 }] }
    const pack = { questionTurUnder: '4' }
    expect(judge([limited('a')], [reading('a', '5.0')], { pack }).items[0]?.questioned).toBe(false)
    expect(
      judge([limited('a')], [reading('a', '5.0')], { run: coarse, pack }).items[0]?.questioned,
    ).toBe(true)
  })
  it('names the pack and its version', () => {
    const { id, version, title } = testPlanOf(shippedLibrary, 'larkhaven-check-first', 'DC').pack
    expect(judge([limited('a')], [reading('a', '2.0')]).rulePack).toEqual({ id, version, title })
  })
})

describe('a difference', () => {
  const gap: PackItem = {
    ...limited('gap'),
    basis: 'difference',
    minuend: 'a',
    subtrahend: 'b',
  }
  const shown = (a: Reading, b: Reading, run?: Partial<TestRun>) =>
    judge([limited('a'), limited('b'), gap], [a, b], run ? { run } : {}).items[2]
  it('has the digits of the finer reading of the same unit', () => {
    expect(shown(reading('a', '7.0'), reading('b', '3.25'))?.reading).toBe('3.75')
    expect(shown(reading('a', '7.0'), reading('b', '22.41', { unit: 'kPa' }))?.reading).toBe('3.7')
  })
  it('is unsure by both of its readings', () => {
    const both = Math.hypot(
      ...[1, 1].map(() => Math.hypot(0.0375 / Math.sqrt(3), 0.1 / Math.sqrt(12))),
    )
    expect(Number(shown(reading('a', '7.0'), reading('b', '3.2'))?.expanded)).toBeCloseTo(
      2 * both,
      2,
    )
    const none = shown(reading('a', '7.0'), reading('b', '3.2'), withoutGauge)
    expect(none).toMatchObject({ outcome: 'pass', reading: '3.8' })
    expect(none).not.toHaveProperty('expanded')
  })
})

describe('readings that contradict one another', () => {
  const items = [limited('low'), limited('high')]
  const says = 'low cannot be above high'
  const outcomes = (low: string, high: string, orEqual?: boolean) =>
    judge(items, [reading('low', low), reading('high', high)], {
      test: { contradictions: [{ item: 'low', mayNotExceed: 'high', orEqual, says }] } as never,
    }).items.map((i) => i.outcome)
  it.each([
    ['2.0', '3.0', false, 'pass'],
    ['3.0', '2.0', false, 'not-assessed'],
    ['2.0', '2.0', false, 'pass'],
    ['2.0', '2.0', true, 'not-assessed'],
    ['2.0', '3.0', true, 'pass'],
  ] as const)('%s against %s, equal counts: %s → %s', (low, high, orEqual, outcome) => {
    expect(outcomes(low, high, orEqual)).toEqual([outcome, outcome])
  })
  it('leave each other alone when one of them is none anyway', () => {
    const verdict = judge(
      items,
      [reading('low', '3.0', { gaugeAbovePortM: 1 }), reading('high', '2.0')],
      {
        test: { contradictions: [{ item: 'low', mayNotExceed: 'high', says }] },
      },
    )
    expect(verdict.items[0]?.code).toBe('height-not-applicable')
    expect(verdict.items[1]?.outcome).toBe('pass')
  })
})

describe('a needle that moves', () => {
  const steps = [step('a', { creep: { value: '0.1', unit: 'psi' } })]
  const moving = (value: string, driftPerMinute: number, item = limited('a')) =>
    judge([item], [reading('a', value, { driftPerMinute })], { steps }).items[0]
  it('is no reading, up or down; only one that falls may leak', () => {
    expect(moving('2.0', 0.1)?.outcome).toBe('pass')
    expect(moving('2.0', -0.1)?.outcome).toBe('pass')
    for (const perMinute of [0.3, -0.3])
      expect(moving('2.0', perMinute)).toMatchObject({
        outcome: 'not-assessed',
        code: 'still-moving',
        params: { perMinute: perMinute.toFixed(6), unit: 'psi' },
      })
  })
  it('has failed when it falls from under its limit, and only then', () => {
    expect(moving('0.6', -0.3)?.outcome).toBe('fail')
    expect(moving('0.6', 0.3)?.outcome).toBe('not-assessed')
    expect(moving('1.0', -0.3)?.outcome).toBe('not-assessed')
    const atMost = { dimension: 'differential', value: '1.0', unit: 'psi' } as const
    const above = limited('a', { atLeast: undefined, atMost })
    expect(moving('0.6', -0.3, above)?.outcome).toBe('not-assessed')
  })
})

describe('an answer', () => {
  const asked = (more: Partial<PackItem<'answer'>> = {}): PackItem => ({
    id: 'seen',
    title: 'Seen',
    basis: 'answer',
    requirement: 'required',
    accept: ['dry'],
    ...more,
  })
  const answers = [
    { id: 'dry', label: 'Dry' },
    { id: 'wet', label: 'Wet' },
  ]
  const steps = [step('seen', { ask: 'answer', answers }), step('a')]
  const said = (answer: string): Answer => ({ item: 'seen', answer, label: answer })
  it('that is not accepted fails', () => {
    expect(judge([asked()], [said('wet')], { steps }).outcome).toBe('fail')
    expect(judge([asked()], [said('dry')], { steps }).outcome).toBe('pass')
  })
  it('takes the meaning of what rests on it, with its reason or a plain one', () => {
    const invalidates = ['a']
    const reason = (more: Partial<PackItem<'answer'>>, answer = 'wet') =>
      judge([asked({ invalidates, ...more }), limited('a')], [said(answer), reading('a', '2.0')], {
        steps,
      }).items[1]?.reason
    expect(reason({ reason: 'it was wet' })).toBe('it was wet')
    expect(reason({})).toBe('Seen disturbs this reading')
    expect(reason({}, 'dry')).toMatch(/to spare/)
  })
})

describe('the whole', () => {
  const advisory = limited('b', { requirement: 'advisory' })
  it('names every required item that decides it, and advisory ones apart', () => {
    const items = [limited('a'), limited('c'), limited('d'), advisory]
    const low = (id: string) => reading(id, '0.5')
    expect(judge(items, [low('a'), low('b')]).reason).toMatch(/^Item a: [^(]*\. Advisory: item b/)
    const { reason } = judge(items, ['a', 'b', 'c', 'd'].map(low))
    expect(reason).toMatch(/^Item a: [^;]*; Item c: [^;]*; Item d: [^;]*\. Advisory: item b/)
  })
  it('passes with a required item in order, and says what is advised', () => {
    const { outcome, reason } = judge(
      [limited('a'), advisory],
      [reading('a', '2.0'), reading('b', '0.5')],
    )
    expect(outcome).toBe('pass')
    expect(reason).toMatch(/^Every required item meets its limit\. Advisory: item b – 0\.5 psid/)
    const quiet = judge([limited('a'), advisory], [reading('a', '2.0'), reading('b', '2.0')])
    expect(quiet.reason).toBe('Every required item meets its limit.')
  })
  it('says what is wanted and what is to spare', () => {
    expect(judge([limited('a')], [reading('a', '2.0')]).items[0]?.reason).toBe(
      '2.0 psid, limit at least 1.0: 1.0 to spare',
    )
  })
})

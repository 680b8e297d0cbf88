import { describe, expect, it } from 'vitest'
import { testPlanOf } from '../library'
import type { DecisionRule } from './decision'
import { shippedLibrary } from '../testing/library'
import { readingOf as psi, testGauge as gauge } from '../testing/readings'
import {
  because,
  falseAcceptProbability,
  guardedAcceptance,
  headCorrection,
  judgeTest,
  normalBelow,
  type Outcome,
  readingUncertainty,
  simpleAcceptance,
  type TestRun,
} from '.'

const healthy: TestRun = {
  readings: [psi('relief-opening', '2.4'), psi('check-1', '7.2')],
  answers: [
    { item: 'shutoff-2', answer: 'tight', label: 'Tight' },
    { item: 'relief-at-rest', answer: 'dry', label: 'Dry' },
    { item: 'check-2', answer: 'held', label: 'Held tight' },
  ],
  order: ['shutoff-2', 'relief-opening', 'check-2', 'check-1'],
  channels: [gauge],
}

function judge(run: Partial<TestRun>, decisionRule: DecisionRule = 'simple') {
  const plan = testPlanOf(shippedLibrary, 'larkhaven-relief-first', 'RP')
  return judgeTest({ ...plan, pack: { ...plan.pack, decisionRule } }, { ...healthy, ...run })
}
const item = (verdict: ReturnType<typeof judge>, id: string) => {
  const found = verdict.items.find((i) => i.id === id)
  if (!found) throw new Error(`no item ${id}`)
  return found
}

describe('uncertainty of a reading', () => {
  it('adds accuracy (÷√3) and one digit (÷√12) as squares', () => {
    const u = readingUncertainty('differential', '5.4', 'psi', gauge)
    expect(u.accuracy).toBeCloseTo((0.0025 * 15) / Math.sqrt(3), 9)
    expect(u.resolution).toBeCloseTo(0.1 / Math.sqrt(12), 9)
    expect(u.combined).toBeCloseTo(Math.hypot(u.accuracy, u.resolution), 9)
  })
  it('is the same uncertainty in any unit', () => {
    const inPsi = readingUncertainty('differential', '5.00', 'psi', {
      ...gauge,
      percent: 2,
    }).accuracy
    const inKpa = readingUncertainty('differential', '34.47', 'kPa', {
      ...gauge,
      percent: 2,
    }).accuracy
    expect(inKpa / inPsi).toBeCloseTo(6.894757, 4)
  })
  it('never shrinks when a part is added', () => {
    const base = readingUncertainty('differential', '5.4', 'psi', gauge).combined
    expect(readingUncertainty('differential', '5.4', 'psi', gauge, 0.05).combined).toBeGreaterThan(
      base,
    )
    expect(
      readingUncertainty('differential', '5.4', 'psi', gauge, 0, 0.05).combined,
    ).toBeGreaterThan(base)
  })
})

describe('the normal distribution', () => {
  it.each([
    [0, 0.5],
    [1, 0.841345],
    [-1.959964, 0.025],
    [3, 0.99865],
  ])('lies below %d with %d', (z, p) => expect(normalBelow(z)).toBeCloseTo(p, 5))
})

describe('decision rules', () => {
  const cases: [number, number, Outcome, Outcome][] = [
    [0.3, 0.1, 'pass', 'pass'],
    [0.1, 0.1, 'pass', 'pass'],
    [0.05, 0.1, 'pass', 'pass-uncertain'],
    [0, 0.1, 'pass', 'pass-uncertain'],
    [-0.05, 0.1, 'fail', 'fail-uncertain'],
    [-0.1, 0.1, 'fail', 'fail'],
  ]
  it.each(cases)('margin %d with U %d: simple %s, guarded %s', (margin, u, simple, guarded) => {
    expect(simpleAcceptance(margin)).toBe(simple)
    expect(guardedAcceptance(margin, u)).toBe(guarded)
  })
  it('accepts falsely in half of the cases on the limit itself, and ever less above it', () => {
    expect(falseAcceptProbability(0, 0.1)).toBeCloseTo(0.5, 6)
    let previous = 1
    for (let margin = 0; margin < 0.5; margin += 0.05) {
      const p = falseAcceptProbability(margin, 0.1)
      expect(p).toBeLessThan(previous)
      previous = p
    }
    expect(falseAcceptProbability(-0.01, 0.1)).toBe(0)
  })
})

describe('head of a hose open to air', () => {
  it('adds one psi for a gauge 27.7 in above the port', () => {
    const { add } = headCorrection(psi('check-1', '1.2', { gaugeAbovePortM: 27.7 * 0.0254 }))
    expect(add).toBeCloseTo(1, 2)
  })
  it('refuses a height on something that is no pressure', () => {
    expect(() =>
      headCorrection({
        item: 'x',
        dimension: 'length',
        value: '1',
        unit: 'mm',
        gaugeAbovePortM: 1,
      }),
    ).toThrow(/pressure/)
  })
})

describe('a relief-first test', () => {
  it('passes when every required item meets its limit', () => {
    const verdict = judge({})
    expect(verdict.outcome).toBe('pass')
    expect(item(verdict, 'check-1').margin).toBe('2.2')
    expect(item(verdict, 'buffer').reading).toBe('4.8')
  })
  it('passes on the limit itself, and fails one digit below it', () => {
    expect(judge({ readings: [psi('relief-opening', '2.0'), psi('check-1', '5.0')] }).outcome).toBe(
      'pass',
    )
    const under = judge({ readings: [psi('relief-opening', '1.9'), psi('check-1', '5.0')] })
    expect(under.outcome).toBe('fail')
    expect(under.reason).toMatch(
      /Relief valve opening: 1\.9 psid is 0\.1 under the limit of 2\.0 psid/,
    )
  })
  it('judges the same whatever unit was displayed', () => {
    const verdict = judge({
      readings: [
        psi('relief-opening', '16.5', { unit: 'kPa' }),
        psi('check-1', '496', { unit: 'mbar' }),
      ],
    })
    expect(verdict.outcome).toBe('pass')
    expect(item(verdict, 'relief-opening')).toMatchObject({
      reading: '16.5',
      unit: 'kPa',
      limit: '13.8',
    })
  })
  it('keeps a narrow buffer advisory', () => {
    const verdict = judge({ readings: [psi('relief-opening', '3.0'), psi('check-1', '5.5')] })
    expect(verdict.outcome).toBe('pass')
    expect(item(verdict, 'buffer').outcome).toBe('fail')
    expect(verdict.reason).toMatch(/Advisory: buffer/)
  })
  it('takes the newest of several readings of an item', () => {
    const verdict = judge({ readings: [...healthy.readings, psi('check-1', '4.1')] })
    expect(item(verdict, 'check-1').reading).toBe('4.1')
    expect(verdict.outcome).toBe('fail')
  })
})

describe('what is never a pass', () => {
  it('a missing reading', () => {
    const verdict = judge({ readings: [psi('check-1', '7.2')] })
    expect(verdict.outcome).toBe('not-assessed')
    expect(verdict.reason).toMatch(/not recorded/)
  })
  it('a relief that opens above the resting differential', () => {
    const verdict = judge({ readings: [psi('relief-opening', '8.0'), psi('check-1', '7.2')] })
    expect(item(verdict, 'relief-opening').outcome).toBe('not-assessed')
    expect(item(verdict, 'check-1').reason).toMatch(/read both again/)
  })
  it('a reading behind a leaking shutoff that was not compensated', () => {
    const verdict = judge({
      answers: [{ item: 'shutoff-2', answer: 'leaks', label: 'Leaks' }, healthy.answers[1]!],
    })
    expect(item(verdict, 'check-1').outcome).toBe('not-assessed')
    expect(item(verdict, 'check-2').outcome).toBe('not-assessed')
    expect(verdict.outcome).toBe('not-assessed')
  })
  it('an as-left reading stamped before the repair', () => {
    const readings = healthy.readings.map((r) => ({ ...r, takenAt: '2026-01-01T10:00:00.000Z' }))
    expect(judge({ readings, notBefore: '2026-01-01T10:30:00.000Z' }).outcome).toBe('not-assessed')
    expect(judge({ readings, notBefore: '2026-01-01T09:30:00.000Z' }).outcome).toBe('pass')
  })
  it('a reading of a gauge out of calibration when it was taken, and what rests on it', () => {
    const refusal = because('out-of-calibration', 'gauge G-03 was out of calibration')
    const [opening, check] = healthy.readings
    const verdict = judge({ readings: [opening!, { ...check!, refusal }] })
    expect(item(verdict, 'check-1')).toMatchObject({
      outcome: 'not-assessed',
      code: 'out-of-calibration',
    })
    expect(item(verdict, 'buffer')).toMatchObject({
      outcome: 'not-assessed',
      code: 'rests-on-blocked',
    })
    expect(item(verdict, 'relief-opening').outcome).toBe('pass')
    expect(verdict.outcome).toBe('not-assessed')
  })
})

describe('guarded acceptance', () => {
  it('passes within uncertainty, with the risk stated, where simple acceptance just passes', () => {
    const verdict = judge(
      { readings: [psi('relief-opening', '2.0'), psi('check-1', '7.2')] },
      'guarded',
    )
    expect(item(verdict, 'relief-opening')).toMatchObject({
      outcome: 'pass-uncertain',
      simple: 'pass',
    })
    expect(item(verdict, 'relief-opening').falseAccept).toBeCloseTo(0.5, 3)
  })
  it('needs to know the gauge', () => {
    const { channels: _, ...without } = healthy
    const plan = testPlanOf(shippedLibrary, 'larkhaven-relief-first', 'RP')
    const guarded = { ...plan, pack: { ...plan.pack, decisionRule: 'guarded' as const } }
    expect(judgeTest(guarded, without).outcome).toBe('not-assessed')
  })
  it('questions a ratio under 4:1', () => {
    const verdict = judge({ channels: [{ ...gauge, percent: 5 }] })
    expect(item(verdict, 'relief-opening').questioned).toBe(true)
    expect(item(judge({}), 'relief-opening').questioned).toBe(false)
  })
})

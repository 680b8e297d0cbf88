import { describe, expect, it } from 'vitest'
import { testPlanOf } from '../library'
import { shippedLibrary } from '../testing/library'
import { answerOf as said, readingOf as psi, testGauge as gauge } from '../testing/readings'
import { type Answer, judgeTest, type Reading, type TestRun } from '.'

function judge(
  pack: string,
  kind: string,
  readings: Reading[],
  answers: Answer[],
  more: Partial<TestRun> = {},
) {
  const plan = testPlanOf(shippedLibrary, pack, kind)
  const order = [...readings, ...answers].map((r) => r.item)
  return judgeTest(plan, { readings, answers, order, channels: [gauge], ...more })
}
const item = (verdict: ReturnType<typeof judge>, id: string) => {
  const found = verdict.items.find((i) => i.id === id)
  if (!found) throw new Error(id)
  return found
}
const rpAnswers = [
  said('relief-at-rest', 'dry'),
  said('check-2', 'held'),
  said('shutoff-2', 'tight'),
]
const RP_ORDER = ['relief-at-rest', 'shutoff-2', 'relief-opening', 'check-2', 'check-1']
const rp = (relief: string, check: string, answers = rpAnswers, more: Partial<TestRun> = {}) =>
  judge(
    'larkhaven-relief-first',
    'RP',
    [psi('relief-opening', relief), psi('check-1', check)],
    answers,
    { order: RP_ORDER, ...more },
  )

describe('two readings that contradict each other', () => {
  it('are not assessed when the relief opens above the differential at rest', () => {
    const verdict = rp('3.40', '2.60')
    expect(item(verdict, 'relief-opening').outcome).toBe('not-assessed')
    expect(item(verdict, 'check-1').outcome).toBe('not-assessed')
    expect(verdict.outcome).toBe('not-assessed')
  })
  it.each([
    ['5.20', '5.10'],
    ['5.10', '5.10'],
  ])(
    'nor when they differ by less than the gauge is sure to, or not at all: %s over %s',
    (a, b) => {
      for (const more of [{}, { channels: [{ ...gauge, percent: 2 }] }]) {
        const verdict = rp(a, b, rpAnswers, more)
        expect([item(verdict, 'relief-opening').outcome, item(verdict, 'check-1').outcome]).toEqual(
          ['not-assessed', 'not-assessed'],
        )
        expect(verdict.outcome).toBe('not-assessed')
      }
      expect(rp('5.09', '5.10').outcome).toBe('pass')
    },
  )
})

describe('a relief that runs at rest', () => {
  const answers = [said('relief-at-rest', 'drips'), ...rpAnswers.slice(1)]
  it('fails, whatever the differential reads', () => {
    expect(rp('7.60', '7.60', answers).outcome).toBe('fail')
  })
  it('and neither its opening point nor check 2 against back-pressure is assessed', () => {
    const leaked = [answers[0]!, said('check-2', 'leaked'), answers[2]!]
    const verdict = rp('2.40', '7.60', leaked)
    expect(item(verdict, 'relief-opening').outcome).toBe('not-assessed')
    expect(item(verdict, 'check-2').outcome).toBe('not-assessed')
    expect(item(verdict, 'check-1').outcome).toBe('pass')
  })
})

describe('the schools differ where they say they do', () => {
  const checkFirst = (buffer: string) =>
    judge(
      'larkhaven-check-first',
      'RP',
      [psi('check-1', '5.40'), psi('check-2-flow', '1.60'), psi('relief-opening', buffer)],
      rpAnswers,
      { order: ['relief-at-rest', 'check-1', 'check-2', 'check-2-flow', 'relief-opening'] },
    )
  it('a narrow buffer is advisory in one and fails in the other', () => {
    expect(rp('3.00', '5.40').outcome).toBe('pass')
    expect(checkFirst('3.00').outcome).toBe('fail')
    expect(checkFirst('2.20').outcome).toBe('pass')
  })
  it('the relief that was tested before the checks disturbs them in the school that tests it last', () => {
    const readings = [
      psi('relief-opening', '2.20'),
      psi('check-1', '7.10'),
      psi('check-2-flow', '1.60'),
    ]
    const verdict = judge('larkhaven-check-first', 'RP', readings, rpAnswers)
    expect(item(verdict, 'check-1').outcome).toBe('not-assessed')
    expect(item(verdict, 'check-1').reason).toMatch(/taken after/)
  })
})

describe('the metric zone under guarded acceptance', () => {
  const kpa = (id: string, value: string): Reading => ({
    item: id,
    dimension: 'differential',
    value,
    unit: 'kPa',
  })
  const zone = (relief: string, more: Partial<TestRun> = {}) =>
    judge(
      'larkhaven-metric-zone',
      'RP',
      [kpa('check-1', '52.0'), kpa('relief-opening', relief)],
      rpAnswers,
      {
        order: ['relief-at-rest', 'shutoff-2', 'check-1', 'check-2', 'relief-opening'],
        ...more,
      },
    )
  it.each([
    ['16.0', 'pass'],
    ['14.1', 'pass-uncertain'],
    ['13.9', 'fail-uncertain'],
    ['11.0', 'fail'],
  ])('%s kPa: %s', (reading, outcome) => {
    expect(item(zone(reading), 'relief-opening').outcome).toBe(outcome)
  })
  it('gives the simple verdict beside it, and the chance of a false accept', () => {
    const relief = item(zone('14.1'), 'relief-opening')
    expect(relief.simple).toBe('pass')
    expect(relief.falseAccept).toBeGreaterThan(0.1)
    expect(relief.falseAccept).toBeLessThan(0.5)
  })
  it('needs a gauge of known accuracy', () => {
    const verdict = judgeTest(testPlanOf(shippedLibrary, 'larkhaven-metric-zone', 'RP'), {
      readings: [kpa('check-1', '52.0')],
      answers: rpAnswers,
      order: ['check-1'],
    })
    expect(item(verdict, 'check-1').outcome).toBe('not-assessed')
  })
})

describe('a hose open to air', () => {
  const dc = (gaugeAbovePortM: number) =>
    judge(
      'larkhaven-relief-first',
      'DC',
      [
        { ...psi('check-1', '0.80'), gaugeAbovePortM },
        { ...psi('check-2', '1.90'), gaugeAbovePortM: 0 },
      ],
      [
        said('shutoff-2', 'tight'),
        said('cock-3-stopped', 'stopped'),
        said('cock-4-stopped', 'stopped'),
      ],
    )
  it('reads low by the column when the gauge is held above the port: corrected, it passes', () => {
    expect(item(dc(0), 'check-1').outcome).toBe('fail')
    const corrected = item(dc(0.3), 'check-1')
    expect(corrected.outcome).toBe('pass')
    expect(Number(corrected.corrected)).toBeCloseTo(0.8 + 0.3 * 1.4223, 2)
  })
})

describe('a detector assembly', () => {
  const readings = (main: string, bypass: string) => [
    psi('check-1', main),
    psi('check-2', '2.80'),
    psi('bypass-check-1', bypass),
    psi('bypass-check-2', '1.60'),
  ]
  const answers = [
    said('shutoff-2', 'tight'),
    said('bypass-shutoff-2', 'tight'),
    said('bypass-meter', 'turns'),
  ]
  it('fails on its bypass as on its main', () => {
    expect(judge('larkhaven-check-first', 'DCDA', readings('3.40', '1.90'), answers).outcome).toBe(
      'pass',
    )
    expect(judge('larkhaven-check-first', 'DCDA', readings('3.40', '0.40'), answers).outcome).toBe(
      'fail',
    )
  })
  it('whose main holds less than its bypass lets small flows pass the meter', () => {
    const verdict = judge('larkhaven-check-first', 'DCDA', readings('1.50', '1.90'), answers)
    expect(item(verdict, 'detector-margin').outcome).toBe('fail')
    expect(verdict.outcome).toBe('fail')
  })
  it('with a meter that stands still fails', () => {
    const still = [...answers.slice(0, 2), said('bypass-meter', 'stands')]
    expect(judge('larkhaven-relief-first', 'DCDA', readings('3.40', '1.90'), still).outcome).toBe(
      'fail',
    )
  })
})

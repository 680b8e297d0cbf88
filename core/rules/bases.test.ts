import { describe, expect, it } from 'vitest'
import { testPlanOf } from '../library'
import type { PackItem } from './basis'
import { shippedLibrary } from '../testing/library'
import { readingOf as reading, testGauge as gauge } from '../testing/readings'
import { judgeTest, type Reading, readingUncertainty, type TestRun } from '.'

/** Judges one item of an invented pack on the procedure of a double check. */
function judged(item: Partial<PackItem>, readings: Reading[], more: Partial<TestRun> = {}) {
  const plan = testPlanOf(shippedLibrary, 'larkhaven-check-first', 'DC')
  const items = [
    { id: 'check-1', title: 'Check 1', basis: 'limit', requirement: 'required', ...item },
  ] as PackItem[]
  const test = { ...plan.test, items, contradictions: [] }
  const run = {
    readings,
    answers: [],
    order: readings.map((r) => r.item),
    channels: [gauge],
    ...more,
  }
  const verdict = judgeTest({ ...plan, test }, run)
  if (!verdict.items[0]) throw new Error('nothing was judged')
  return verdict.items[0]
}

describe('a limit from above', () => {
  const atMost = { dimension: 'differential', value: '2.0', unit: 'psi' } as const
  it.each([
    ['1.9', 'pass', '0.1'],
    ['2.0', 'pass', '0.0'],
    ['2.1', 'fail', '-0.1'],
  ])('%s under at most 2.0: %s', (value, outcome, margin) => {
    const found = judged({ atMost }, [reading('check-1', value)])
    expect(found).toMatchObject({ outcome, margin, limitSense: 'at most' })
  })
  it('says how far it is over', () => {
    expect(judged({ atMost }, [reading('check-1', '2.5')]).reason).toBe(
      '2.5 psid is 0.5 over the limit of 2.0 psid',
    )
  })
})

describe('a difference', () => {
  const difference = {
    id: 'gap',
    basis: 'difference',
    minuend: 'check-1',
    subtrahend: 'check-2',
    atLeast: { dimension: 'differential', value: '3.0', unit: 'psi' },
  } as const
  it('is the same whatever unit its second reading was displayed in', () => {
    const psi = judged(difference, [reading('check-1', '7.0'), reading('check-2', '3.5')])
    const kpa = judged(difference, [
      reading('check-1', '7.0'),
      reading('check-2', '24.1', { unit: 'kPa' }),
    ])
    expect(psi).toMatchObject({ outcome: 'pass', reading: '3.5', unit: 'psi' })
    expect(Number(kpa.reading)).toBeCloseTo(7 - 24.1 / 6.894757, 1)
    expect(kpa.outcome).toBe('pass')
    expect(
      judged(difference, [reading('check-1', '7.0'), reading('check-2', '28.0', { unit: 'kPa' })])
        .outcome,
    ).toBe('fail')
  })
  it('is as uncertain as both its readings together', () => {
    const one = readingUncertainty('differential', '7.0', 'psi', gauge).combined
    const other = readingUncertainty('differential', '24.1', 'kPa', gauge).combined / 6.894757
    const found = judged(difference, [
      reading('check-1', '7.0'),
      reading('check-2', '24.1', { unit: 'kPa' }),
    ])
    expect(Number(found.expanded)).toBeCloseTo(2 * Math.hypot(one, other), 1)
    expect(Number(found.expanded)).toBeGreaterThan(2 * one)
  })
})

describe('the accuracy of a gauge', () => {
  const atLeast = { dimension: 'differential', value: '1.0', unit: 'psi' } as const
  it('of the reading grows with the reading, of the span it does not', () => {
    const of = (of: 'span' | 'reading', value: string) =>
      readingUncertainty('differential', value, 'psi', { ...gauge, percent: 2, of }).accuracy
    expect(of('reading', '10.0') / of('reading', '5.0')).toBeCloseTo(2, 9)
    expect(of('span', '10.0')).toBe(of('span', '5.0'))
    expect(of('reading', '15.0')).toBeCloseTo(of('span', '15.0'), 9)
    expect(of('reading', '5.0')).toBeCloseTo((0.02 * 5) / Math.sqrt(3), 9)
  })
  it('is questioned under the pack’s ratio', () => {
    const with_ = (percent: number) =>
      judged({ atLeast }, [reading('check-1', '1.4')], { channels: [{ ...gauge, percent }] })
    expect(with_(0.25).questioned).toBe(false)
    expect(with_(3).questioned).toBe(true)
    expect(with_(3).tur).toBeCloseTo(1 / Number(with_(3).expanded), 1)
  })
})

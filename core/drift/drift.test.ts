import { describe, expect, it } from 'vitest'
import { normalNumbers, randomNumbers } from '../testing/random'
import { drift } from '.'
import { studentBelow, studentQuantile } from './student'

describe('Student’s distribution', () => {
  // Percentage points of a printed table (Abramowitz & Stegun, table 26.10).
  it.each([
    [1, 12.706],
    [2, 4.303],
    [3, 3.182],
    [4, 2.776],
    [9, 2.262],
    [10, 2.228],
  ])('with %d degrees leaves 2.5 %% above %d', (degrees, t) => {
    expect(1 - studentBelow(t, degrees)).toBeCloseTo(0.025, 4)
    expect(studentQuantile(0.975, degrees)).toBeCloseTo(t, 2)
  })
  it('is even', () => {
    for (const degrees of [1, 2, 5, 8]) {
      expect(studentBelow(0, degrees)).toBeCloseTo(0.5, 12)
      expect(studentBelow(1.3, degrees) + studentBelow(-1.3, degrees)).toBeCloseTo(1, 12)
    }
  })
})

describe('drift', () => {
  const year = (n: number) => `${2020 + n}-06-01`
  it('is what was found less what was left the time before', () => {
    const found = drift(
      [
        { date: year(0), asFound: 61, asLeft: 60 },
        { date: year(1), asFound: 59, asLeft: 60 },
        { date: year(2), asFound: 59 },
        { date: year(3), asFound: 58 },
      ],
      year(4),
    )
    expect(found?.intervals).toBe(3)
    expect(found?.perYear).toBeCloseTo(-1, 1)
    expect(found?.expected).toBeCloseTo(57, 1)
  })
  it('takes its pace from the time between, not from the count of tests', () => {
    const slow = drift(
      [
        { date: year(0), asFound: 60 },
        { date: year(4), asFound: 56 },
      ],
      year(6),
    )
    expect(slow?.perYear).toBeCloseTo(-1, 2)
    expect(slow?.within).toBeUndefined()
    expect(slow?.chanceOut).toBeUndefined()
  })
  it('says how likely it is to be out at the next date', () => {
    const tests = [60, 59.2, 58.1, 57.2, 56.0].map((asFound, n) => ({ date: year(n), asFound }))
    const chance = (low: number) => drift(tests, year(5), { low, high: 66 })?.chanceOut ?? NaN
    expect(chance(50)).toBeLessThan(0.01)
    // The line through the five is at 55.1 a year later.
    expect(chance(55.1)).toBeCloseTo(0.5, 1)
    expect(chance(58)).toBeGreaterThan(0.99)
    expect(chance(54)).toBeLessThan(chance(55))
  })
  it('is sure only where the intervals agree', () => {
    const even = drift(
      [60, 59, 58, 57].map((asFound, n) => ({ date: year(n), asFound })),
      year(4),
    )
    const uneven = drift(
      [60, 55, 60, 55].map((asFound, n) => ({ date: year(n), asFound })),
      year(4),
    )
    expect(even?.within).toBeLessThan(0.1)
    expect(uneven?.within).toBeGreaterThan(2)
  })
  it('is not governed by two readings a few weeks apart, and gives no chance that means nothing', () => {
    // Set pressures of a house regulator, inH2O, limits 12.6 to 15.4.
    const tests = [
      { date: '2024-10-01', asFound: 14.5 },
      { date: '2025-10-01', asFound: 13.9 },
      { date: '2026-10-10', asFound: 13.7 },
      { date: '2026-11-28', asFound: 14.1 },
    ]
    const found = drift(tests, '2027-11-28', { low: 12.6, high: 15.4 })
    // Least squares by hand: slope −0.27 a year, standard error 0.13.
    expect(found?.perYear).toBeCloseTo(-0.27, 1)
    expect(found?.perYear).toBeLessThan(0)
    expect(found?.within).toBeLessThan(1)
    expect(found?.chanceOut).toBeLessThan(0.2)
    expect(drift(tests.slice(2), '2027-11-28', { low: 12.6, high: 15.4 })).toMatchObject({
      isTooLittle: true,
    })
    expect(
      drift(tests.slice(2), '2027-11-28', { low: 12.6, high: 15.4 })?.chanceOut,
    ).toBeUndefined()
  })
  describe.each(['unstated', 'stated'] as const)('with an uncertainty that is %s', (how) => {
    it.each([2, 3, 4, 5, 6, 7, 8])(
      'covers the true rate in 95 of 100 cases from %d intervals',
      (intervals) => {
        const [noise, uniform] = [normalNumbers(intervals * 7 + 1), randomNumbers(intervals)]
        const rounds = 4_000
        let covered = 0
        for (let n = 0; n < rounds; n++) {
          const rate = (uniform() - 0.5) * 2
          const tests = Array.from({ length: intervals + 1 }, (_, k) => ({
            date: `${2010 + k}-${uniform() < 0.5 ? '05' : '07'}-01`,
            asFound: 0,
            ...(how === 'stated' ? { standard: 0.3 } : {}),
          }))
          const start = Date.parse('2010-01-01')
          const seen = tests.map((t) => ({
            ...t,
            asFound:
              60 + (rate * (Date.parse(t.date) - start)) / 86_400_000 / 365.25 + 0.3 * noise(),
          }))
          const found = drift(seen, '2030-01-01')
          if (Math.abs((found?.perYear ?? NaN) - rate) <= (found?.within ?? NaN)) covered++
        }
        expect(covered / rounds).toBeGreaterThan(0.93)
        expect(covered / rounds).toBeLessThan(0.97)
      },
    )
  })
  it('says nothing of one test, or of tests within a month', () => {
    expect(drift([{ date: year(0), asFound: 60 }], year(1))).toBeNull()
    expect(
      drift(
        [
          { date: '2024-06-01', asFound: 60 },
          { date: '2024-06-20', asFound: 59 },
        ],
        year(5),
      ),
    ).toBeNull()
  })
})

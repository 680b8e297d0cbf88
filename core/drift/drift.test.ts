import { describe, expect, it } from 'vitest'
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
        { date: year(0), asFound: 60, asLeft: 60 },
        { date: year(1), asFound: 59, asLeft: 60 },
        { date: year(2), asFound: 58.9 },
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
    expect(chance(55)).toBeCloseTo(0.5, 1)
    expect(chance(58)).toBeGreaterThan(0.99)
    expect(chance(54)).toBeLessThan(chance(55))
  })
  it('is sure only where the intervals agree', () => {
    const even = drift(
      [60, 59, 58, 57].map((asFound, n) => ({ date: year(n), asFound })),
      year(4),
    )
    const uneven = drift(
      [60, 57, 58, 55].map((asFound, n) => ({ date: year(n), asFound })),
      year(4),
    )
    expect(even?.within).toBeLessThan(0.1)
    expect(uneven?.within).toBeGreaterThan(2)
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

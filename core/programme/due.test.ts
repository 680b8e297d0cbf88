import { describe, expect, it } from 'vitest'
import { addDays } from '../calendar'
import { dueState, lawfulUntil, nextDue } from '.'

const annual = { intervalMonths: 12, maximumMonths: 15 }
const notices = { graceDays: 14, firstNoticeDays: 60, secondNoticeDays: 30 }

describe('next due date', () => {
  it.each([
    ['tested in its month', '2026-09-30', '2026-09-12', '2027-09-30'],
    ['tested late: next year does not drift', '2026-09-30', '2026-11-20', '2027-09-30'],
    ['tested a month early', '2026-09-30', '2026-08-15', '2027-09-30'],
    [
      'tested in spring after a repair: still due in autumn',
      '2026-09-30',
      '2026-02-01',
      '2026-09-30',
    ],
    [
      'tested so that the anchor falls on the last lawful day',
      '2026-09-30',
      '2026-06-30',
      '2027-09-30',
    ],
    ['and a day earlier it does not', '2026-09-30', '2026-06-29', '2026-09-30'],
    ['the end of a month stays the end of every month', '2024-06-30', '2025-02-10', '2025-06-30'],
    ['the end of February stays the end of February', '2024-02-29', '2025-02-10', '2026-02-28'],
    ['and is the 29th again in a leap year', '2024-02-29', '2027-02-28', '2028-02-29'],
  ])('%s', (_, anchor, testedOn, expected) => {
    expect(nextDue(annual, anchor, testedOn)).toBe(expected)
  })

  it('keeps its anchor over ten years of tests at odd times, and never exceeds the maximum', () => {
    let due = '2020-06-30'
    for (let year = 2020; year < 2030; year++) {
      const tested = addDays(due, ((year * 37) % 70) - 35)
      const next = nextDue(annual, due, tested)
      expect(next.slice(5)).toBe('06-30')
      expect(Number(next.slice(0, 4))).toBe(Number(due.slice(0, 4)) + 1)
      expect(next <= addDays(tested, 458)).toBe(true)
      due = next
    }
  })
  describe('where a test is wanted in each calendar year', () => {
    const gas = { ...annual, eachCalendarYear: true }
    it('never skips one, for any anchor and day of test', () => {
      for (let a = 0; a < 36; a++) {
        for (let t = 0; t < 36; t++) {
          const anchor = addDays('2025-01-01', a * 10)
          const tested = addDays('2025-01-01', t * 10)
          const due = nextDue(gas, anchor, tested)
          expect(due > tested, `${anchor} ${tested}`).toBe(true)
          expect(Number(due.slice(0, 4)) - Number(tested.slice(0, 4))).toBeLessThanOrEqual(1)
          expect(due <= lawfulUntil(gas, tested)).toBe(true)
        }
      }
    })
    it('says the last lawful day: 15 months, or the end of the next year', () => {
      expect(lawfulUntil(gas, '2025-10-01')).toBe('2026-12-31')
      expect(lawfulUntil(gas, '2025-03-10')).toBe('2026-06-10')
      expect(lawfulUntil(annual, '2025-10-01')).toBe('2027-01-01')
    })
    it('an anchor in January and a test in October: three months on, not fifteen', () => {
      expect(nextDue(gas, '2025-01-01', '2025-10-01')).toBe('2026-01-01')
      expect(nextDue(annual, '2025-01-01', '2025-10-01')).toBe('2027-01-01')
    })
  })
  it('says how to write a date', () => {
    expect(() => nextDue(annual, 'soon', '2026-01-01')).toThrow(/2026-11-24/)
  })
})

describe('notices and grace', () => {
  it.each([
    ['2026-07-31', 'not-due'],
    ['2026-08-01', 'first-notice'],
    ['2026-08-31', 'second-notice'],
    ['2026-09-30', 'due'],
    ['2026-10-14', 'due'],
    ['2026-10-15', 'overdue'],
  ])('due on 30 September, seen on %s: %s', (today, state) => {
    expect(dueState(notices, '2026-09-30', today)).toBe(state)
  })
})

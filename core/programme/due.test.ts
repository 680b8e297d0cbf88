import { describe, expect, it } from 'vitest'
import { addDays, dueState, nextDue, validOn } from '.'

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

it('a calibration counts on its first and its last day', () => {
  expect(validOn('2026-01-01', '2026-01-01', '2026-12-31')).toBe(true)
  expect(validOn('2026-12-31', '2026-01-01', '2026-12-31')).toBe(true)
  expect(validOn('2027-01-01', '2026-01-01', '2026-12-31')).toBe(false)
})

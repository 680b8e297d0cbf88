import { describe, expect, it } from 'vitest'
import { addDays, dateThere, daysBetween, isDate, isMoment, secondsBetween, validOn } from '.'

describe('a moment', () => {
  it('is so many seconds from another, whatever zones they are written in', () => {
    expect(secondsBetween('2026-11-24T08:15:00.000Z', '2026-11-24T08:16:30.500Z')).toBe(90.5)
    expect(secondsBetween('2026-11-24T09:15:00+01:00', '2026-11-24T08:15:00Z')).toBe(0)
    expect(secondsBetween('2026-11-24T08:15:00Z', '2026-11-24T08:14:00Z')).toBe(-60)
    expect(secondsBetween('this morning', '2026-11-24T08:14:00Z')).toBeNaN()
  })
  it('has another date where the clock is ahead or behind', () => {
    expect(dateThere('2026-11-24T23:30:00Z', 0)).toBe('2026-11-24')
    expect(dateThere('2026-11-24T23:30:00Z', 60)).toBe('2026-11-25')
    expect(dateThere('2026-01-01T03:00:00Z', -240)).toBe('2025-12-31')
  })
  it.each([
    ['2026-11-24T08:15:00Z', true],
    ['2026-11-24T08:15:00.5Z', true],
    ['2024-02-29T23:59:59.999Z', true],
    ['2026-02-29T08:15:00Z', false],
    ['2026-11-24T24:30:00Z', false],
    ['2026-11-24T08:15:60Z', false],
    ['2026-11-24T08:15:00', false],
    ['2026-11-24T08:15:00+01:00', false],
    ['2026-11-24', false],
  ])('%s: %s', (text, is) => expect(isMoment(text)).toBe(is))
})

describe('a date', () => {
  it.each([
    ['2026-11-24', true],
    ['2024-02-29', true],
    ['2100-02-29', false],
    ['2026-02-30', false],
    ['2026-13-01', false],
    ['2026-00-10', false],
    ['26-11-24', false],
    ['2026-11-24T00:00:00Z', false],
  ])('%s: %s', (text, is) => expect(isDate(text)).toBe(is))
})

describe('days', () => {
  it.each([
    ['2026-12-31', 1, '2027-01-01'],
    ['2024-02-28', 1, '2024-02-29'],
    ['2026-03-01', -1, '2026-02-28'],
    ['2026-11-24', 0, '2026-11-24'],
    ['2026-01-01', 365, '2027-01-01'],
  ])('%s and %i days: %s, and back', (from, days, to) => {
    expect(addDays(from, days)).toBe(to)
    expect(daysBetween(from, to)).toBe(days)
    expect(addDays(to, -days)).toBe(from)
  })
  it('are asked for in words where there is no date', () => {
    expect(() => addDays('soon', 1)).toThrow(/2026-11-24/)
    expect(() => daysBetween('2026-11-24', '2026-02-30')).toThrow(/2026-02-30/)
  })
})

it('a calibration counts on its first and its last day', () => {
  expect(validOn('2026-01-01', '2026-01-01', '2026-12-31')).toBe(true)
  expect(validOn('2026-12-31', '2026-01-01', '2026-12-31')).toBe(true)
  expect(validOn('2027-01-01', '2026-01-01', '2026-12-31')).toBe(false)
})

import { describe, expect, it, vi } from 'vitest'
import { clockWords, dateWords, sizeWords, timeWords, weekdayWords } from './words'

describe('times in words', () => {
  it('a date is the same everywhere', () => {
    expect(dateWords('2026-11-24')).toBe('24 Nov 2026')
    expect(dateWords('2026-01-01')).toBe('1 Jan 2026')
    expect(weekdayWords('2026-11-24')).toBe('Tuesday 24 November 2026')
    expect(dateWords(null)).toBe('–')
  })
  it('a moment is told by the clock of the device', () => {
    // Written in the device's own zone, whatever that is here.
    const local = new Date(2026, 10, 24, 8, 5).toISOString()
    expect(timeWords(local)).toBe('24 Nov 2026, 08:05')
    expect(clockWords(local)).toBe('08:05')
    expect(clockWords(new Date(2026, 10, 24, 0, 0).toISOString())).toBe('00:00')
    expect(dateWords(new Date(2026, 10, 24, 23, 59).toISOString())).toBe('24 Nov 2026')
  })
  it.each([
    ['en-US', 'Nov 24, 2026', '08:05 AM'],
    ['en-AU', '24 Nov 2026', '08:05 am'],
    ['de-DE', '24 Nov 2026', '08:05'],
    ['sv', '24 Nov 2026', '08:05'],
    ['no such language', '24 Nov 2026', '08:05'],
  ])('follow the conventions of %s, in English', (language, date, clock) => {
    vi.spyOn(navigator, 'language', 'get').mockReturnValue(language)
    expect(dateWords('2026-11-24')).toBe(date)
    expect(clockWords(new Date(2026, 10, 24, 8, 5).toISOString())).toBe(clock)
  })
})

it.each([
  [1_900_000_000, '1.9 GB'],
  [12_000_000_000, '12 GB'],
  [240_000_000, '240 MB'],
  [3_240_000, '3.2 MB'],
  [0, '0 MB'],
])('%i bytes are %s', (bytes, said) => {
  vi.spyOn(navigator, 'language', 'get').mockReturnValue('en-GB')
  expect(sizeWords(bytes)).toBe(said)
})

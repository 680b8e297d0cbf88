import { describe, expect, it } from 'vitest'
import { dateInZone, isTimeZone, offsetInZone } from '.'

describe('a time zone', () => {
  it.each([
    ['2026-12-01T23:30:00.000Z', 'UTC', '2026-12-01', 0],
    ['2026-12-01T23:30:00.000Z', 'Asia/Kolkata', '2026-12-02', 330],
    ['2026-12-02T03:30:00.000Z', 'America/Denver', '2026-12-01', -420],
    // Summer time begins there on 8 March 2026 at two in the morning.
    ['2026-03-08T08:59:59.000Z', 'America/Denver', '2026-03-08', -420],
    ['2026-03-08T09:00:00.000Z', 'America/Denver', '2026-03-08', -360],
    ['2026-12-31T11:30:00.000Z', 'Pacific/Kiritimati', '2027-01-01', 840],
  ])('%s in %s is %s, %d min from UTC', (time, zone, date, offset) => {
    expect(dateInZone(time, zone)).toBe(date)
    expect(offsetInZone(time, zone)).toBe(offset)
  })
  it('is told from what is none', () => {
    expect(isTimeZone('America/Denver')).toBe(true)
    expect(isTimeZone('Larkhaven/Nowhere')).toBe(false)
  })
})

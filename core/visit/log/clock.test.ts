import { describe, expect, it } from 'vitest'
import { clockDoubt, isBeforePlanned, isFarOff, legalDate } from './clock'
import type { PayloadOf, VisitEvent } from './events'

/** Seven hours west of UTC; its neighbors are an hour to either side. */
const zone = { name: 'America/Denver', within: 60 }
const ARRIVED = '2026-12-01T20:00:00.000Z'
const at = (deviceTime: string, more: Partial<VisitEvent> = {}) =>
  ({ deviceTime, deviceOffset: -420, serverTime: ARRIVED, ...more }) as Parameters<
    typeof clockDoubt
  >[0]

describe('the legal date', () => {
  // Half past six in the evening of 30 November there.
  const event = { deviceTime: '2026-12-01T01:30:00.000Z', deviceOffset: 840 }
  it('is that of the utility, whatever zone the device claims', () => {
    expect(legalDate({ plan: { zone } }, event)).toBe('2026-11-30')
    expect(legalDate({ plan: { zone } }, { ...event, deviceOffset: -840 })).toBe('2026-11-30')
  })
  it('is where the device stood in logs from before the zone was pinned', () => {
    expect(legalDate({ plan: {} }, event)).toBe('2026-12-01')
    expect(legalDate({}, { ...event, deviceOffset: -840 })).toBe('2026-11-30')
  })
})

describe('a clock', () => {
  it.each<[string, Parameters<typeof clockDoubt>[0], ReturnType<typeof clockDoubt>]>([
    ['that is right', at('2026-12-01T19:00:00.000Z'), null],
    ['five minutes ahead of the arrival', at('2026-12-01T20:05:00.000Z'), null],
    ['a second more ahead', at('2026-12-01T20:05:01.000Z'), 'clock-off'],
    ['twelve hours ahead', at('2026-12-02T08:00:00.000Z'), 'clock-off'],
    ['a second more', at('2026-12-02T08:00:01.000Z'), 'clock-far-off'],
    ['301 s ahead when it sent', at('2026-12-01T19:00:00.000Z', { clockAheadS: 301 }), 'clock-off'],
    ['301 s behind', at('2026-12-01T19:00:00.000Z', { clockAheadS: -301 }), 'clock-off'],
    ['300 s behind', at('2026-12-01T19:00:00.000Z', { clockAheadS: -300 }), null],
    ['half a day behind', at('2026-12-01T19:00:00.000Z', { clockAheadS: -43_200 }), 'clock-off'],
    ['more than that', at('2026-12-01T19:00:00.000Z', { clockAheadS: -43_201 }), 'clock-far-off'],
    ['in the zone to the east', at('2026-12-01T19:00:00.000Z', { deviceOffset: -360 }), null],
    ['further east', at('2026-12-01T19:00:00.000Z', { deviceOffset: -359 }), 'another-zone'],
    ['further west', at('2026-12-01T19:00:00.000Z', { deviceOffset: -481 }), 'another-zone'],
    ['that waited for two days', at('2026-11-29T20:00:00.000Z'), null],
    ['that waited longer', at('2026-11-29T19:59:59.000Z'), 'far-from-arrival'],
    [
      'far off, and in another zone',
      at('2026-12-03T20:00:00.000Z', { deviceOffset: 0 }),
      'clock-far-off',
    ],
  ])('%s', (_, event, doubt) => {
    expect(clockDoubt(event, { zone })).toBe(doubt)
  })
  it('is not doubted before it has sent anything', () => {
    const { serverTime: _, ...waiting } = at('2027-12-01T19:00:00.000Z', { deviceOffset: 0 })
    expect(clockDoubt(waiting, { zone })).toBeNull()
    expect(isFarOff(waiting)).toBe(false)
  })
  it('has no zone to be held against in older logs', () => {
    const event = at('2026-12-01T19:00:00.000Z', { deviceOffset: 840 })
    expect(clockDoubt(event, {})).toBeNull()
  })
  it('an hour before the plan is a clock that is off a little, and a second more is wrong', () => {
    const plannedAt = '2026-12-01T10:00:00.000Z'
    expect(isBeforePlanned({ deviceTime: '2026-12-01T09:00:00.000Z' }, plannedAt)).toBe(false)
    expect(isBeforePlanned({ deviceTime: '2026-12-01T08:59:59.000Z' }, plannedAt)).toBe(true)
    expect(isBeforePlanned({ deviceTime: '2026-12-01T08:59:59.000Z' }, undefined)).toBe(false)
    expect(clockDoubt(at('2026-12-01T08:59:59.000Z'), { plannedAt, zone })).toBe('before-planned')
  })
})

describe('what a test rests on', () => {
  const payload = (license: string, calibration: string) =>
    ({
      licence: { expiresOn: license },
      instruments: [{ calibrationUntil: '2027-01-01' }, { calibrationUntil: calibration }],
    }) as unknown as PayloadOf<'test-started'>
  const started = (license: string, calibration: string, kind = 'test-started') =>
    ({
      ...at('2026-11-30T20:00:00.000Z'),
      kind,
      payload: payload(license, calibration),
    }) as Parameters<typeof clockDoubt>[0]
  it.each([
    ['both last to the day of arrival', '2026-12-01', '2026-12-01', null],
    ['the license ended the day before', '2026-11-30', '2027-01-01', 'expired-on-arrival'],
    ['one calibration ended the day before', '2027-01-01', '2026-11-30', 'expired-on-arrival'],
  ])('%s', (_, license, calibration, doubt) => {
    expect(clockDoubt(started(license, calibration), { zone })).toBe(doubt)
  })
  it('is asked of tests alone, and where there is a zone', () => {
    expect(clockDoubt(started('2026-11-30', '2026-11-30', 'note'), { zone })).toBeNull()
    expect(clockDoubt(started('2026-11-30', '2026-11-30'), {})).toBeNull()
  })
})

/* eslint-disable no-restricted-globals -- a time is read here and no clock asked */

/**
 * Seconds from one moment to another.
 * @param from ISO time with its zone, as 2026-11-24T08:15:00.000Z
 * @returns NaN where one of them is no time
 */
export const secondsBetween = (from: string, to: string): number =>
  (Date.parse(to) - Date.parse(from)) / 1_000

/**
 * The date where a clock stood.
 * @param time ISO time with its zone
 * @param offset minutes by which the zone there was ahead of UTC
 */
export const dateThere = (time: string, offset: number): string =>
  new Date(Date.parse(time) + offset * 60_000).toISOString().slice(0, 10)

/** Whether this is a moment in UTC, as 2026-11-24T08:15:00Z or with milliseconds. */
export function isMoment(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}(\.\d{1,3})?Z$/.test(text)) return false
  const read = new Date(text)
  // 30 February would come back as a day in March.
  return !Number.isNaN(read.getTime()) && read.toISOString().slice(0, 19) === text.slice(0, 19)
}

/** Whether this is the name of a time zone that this machine knows. */
export function isTimeZone(name: string): boolean {
  try {
    return Boolean(clockIn(name))
  } catch {
    return false
  }
}

/**
 * The date in a time zone.
 * @param time ISO time with its zone
 * @param zone IANA name
 * @throws RangeError for a zone that is not known
 */
export function dateInZone(time: string, zone: string): string {
  const { year, month, day } = wallClock(time, zone)
  return `${year}-${month}-${day}`
}

/**
 * Minutes by which a time zone is ahead of UTC at a moment.
 * @param time ISO time with its zone
 * @param zone IANA name
 * @throws RangeError for a zone that is not known
 */
export function offsetInZone(time: string, zone: string): number {
  const { year, month, day, hour, minute, second } = wallClock(time, zone)
  const there = Date.parse(`${year}-${month}-${day}T${hour}:${minute}:${second}Z`)
  return Math.round((there - Date.parse(time)) / 60_000)
}

type Part = 'year' | 'month' | 'day' | 'hour' | 'minute' | 'second'

const clocks = new Map<string, Intl.DateTimeFormat>()
/** Making one takes long, and every entry of a log asks for it. */
function clockIn(zone: string): Intl.DateTimeFormat {
  const made =
    clocks.get(zone) ??
    new Intl.DateTimeFormat('en-US', {
      timeZone: zone,
      calendar: 'iso8601',
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
    })
  clocks.set(zone, made)
  return made
}

const wallClock = (time: string, zone: string) =>
  Object.fromEntries(
    clockIn(zone)
      .formatToParts(new Date(time))
      .map((p) => [p.type, p.value]),
  ) as Record<Part, string>

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

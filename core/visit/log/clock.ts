import { DateTime } from 'luxon'
import type { EventDraft, VisitEvent } from './events'

/** Why the device’s time of an entry is no proof of when it was made. */
export type ClockDoubt = 'before-planned' | 'far-from-arrival'

/** How long an honest entry may wait on a device without its time being doubted, h. */
const CLOCK_FAR_HOURS = 48
/** How far the clocks of device and server may differ, h. */
const CLOCK_SLACK_HOURS = 1

/**
 * Whether the device’s time of an event proves when it was made: it does not when it lies before the
 * visit was planned, or far from the arrival. What is not sent yet has no doubt.
 */
export function clockDoubt(
  event: Pick<VisitEvent, 'deviceTime' | 'serverTime'>,
  plannedAt: string | undefined,
): ClockDoubt | null {
  if (!event.serverTime) return null
  if (plannedAt && hoursTo(event.deviceTime, plannedAt) > CLOCK_SLACK_HOURS) return 'before-planned'
  const late = Math.abs(hoursTo(event.deviceTime, event.serverTime))
  return late > CLOCK_FAR_HOURS ? 'far-from-arrival' : null
}

/** From one instant to another; both are ISO times with their zone. */
// eslint-disable-next-line no-restricted-globals -- parsing asks no clock, and every entry is looked at
const hoursTo = (from: string, to: string) => (Date.parse(to) - Date.parse(from)) / 3_600_000

/** The legal date of an event where the device stood. */
export function localDateOf(event: Pick<EventDraft, 'deviceTime' | 'deviceOffset'>): string {
  return DateTime.fromISO(event.deviceTime, { zone: 'utc' })
    .plus({ minutes: event.deviceOffset })
    .toISODate() as string
}

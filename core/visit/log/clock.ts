import { dateThere, secondsBetween } from '../../calendar'
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

const hoursTo = (from: string, to: string) => secondsBetween(from, to) / 3_600

/** The legal date of an event where the device stood. */
export function localDateOf(event: Pick<EventDraft, 'deviceTime' | 'deviceOffset'>): string {
  return dateThere(event.deviceTime, event.deviceOffset)
}

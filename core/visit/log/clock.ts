import { dateInZone, dateThere, offsetInZone, secondsBetween } from '../../calendar'
import type { EventDraft, PayloadOf, VisitEvent } from './events'

/** Why the device’s time of an entry is no proof of when it was made, the gravest first. */
export const clockDoubts = [
  /** Its clock was more than half a day off when it sent. */
  'clock-far-off',
  /** License or calibration cover the day of the device, and not the day on which the entry arrived. */
  'expired-on-arrival',
  'before-planned',
  'far-from-arrival',
  /** Its clock stood in a time zone that is neither the utility’s nor beside it. */
  'another-zone',
  /** Its clock was some minutes off when it sent. */
  'clock-off',
] as const
export type ClockDoubt = (typeof clockDoubts)[number]

/** How long an honest entry may wait on a device without its time being doubted, h. */
const CLOCK_FAR_HOURS = 48
/** How far the clocks of device and server may differ, h. */
const CLOCK_SLACK_HOURS = 1
/** A clock that differs by more than this is marked, s. */
export const CLOCK_OFF_S = 5 * 60
/** A clock that differs by more than this signs nothing, s. */
const CLOCK_FAR_OFF_S = 12 * 3_600

/** What of a visit the time of an entry is held against. */
export interface ClockBase {
  /** When the server wrote the plan. */
  readonly plannedAt?: string | undefined
  /** The zone of the utility; absent in logs from before it was pinned. */
  readonly zone?: PayloadOf<'planned'>['zone']
}

/**
 * Whether the device’s time of an event proves when it was made: it does not when it lies before the
 * visit was planned, far from the arrival, in another zone, or its clock is off. What is not sent yet has no doubt.
 */
export function clockDoubt(
  event: Pick<VisitEvent, 'deviceTime' | 'deviceOffset' | 'serverTime' | 'clockAheadS'> &
    Partial<Pick<VisitEvent, 'kind' | 'payload'>>,
  base: ClockBase,
): ClockDoubt | null {
  if (!event.serverTime) return null
  if (isFarOff(event)) return 'clock-far-off'
  if (isExpiredOnArrival(event, base)) return 'expired-on-arrival'
  const { plannedAt, zone } = base
  if (isBeforePlanned(event, plannedAt)) return 'before-planned'
  const late = Math.abs(hoursTo(event.deviceTime, event.serverTime))
  if (late > CLOCK_FAR_HOURS) return 'far-from-arrival'
  if (
    zone &&
    Math.abs(event.deviceOffset - offsetInZone(event.deviceTime, zone.name)) > zone.within
  )
    return 'another-zone'
  const ahead = secondsBetween(event.serverTime, event.deviceTime)
  return Math.max(Math.abs(event.clockAheadS ?? 0), ahead) > CLOCK_OFF_S ? 'clock-off' : null
}

/** Whether the device’s time of an event lies before its visit was planned: no clock that was right says so. */
export const isBeforePlanned = (
  { deviceTime }: Pick<VisitEvent, 'deviceTime'>,
  plannedAt: string | undefined,
): boolean => plannedAt !== undefined && hoursTo(deviceTime, plannedAt) > CLOCK_SLACK_HOURS

/** Whether the clock of a device was more than half a day off: by what it said when it sent, or by a time that is yet to come. */
export const isFarOff = ({
  clockAheadS = 0,
  serverTime,
  deviceTime,
}: Pick<VisitEvent, 'deviceTime' | 'serverTime' | 'clockAheadS'>): boolean =>
  Math.abs(clockAheadS) > CLOCK_FAR_OFF_S ||
  (serverTime !== undefined && secondsBetween(serverTime, deviceTime) > CLOCK_FAR_OFF_S)

/** Whether license and calibrations of a test cover the day of the device, and not the day of its arrival. */
function isExpiredOnArrival(
  event: Pick<VisitEvent, 'serverTime'> & Partial<Pick<VisitEvent, 'kind' | 'payload'>>,
  base: ClockBase,
): boolean {
  if (event.kind !== 'test-started' || !event.serverTime || !base.zone) return false
  const { licence, instruments } = event.payload as PayloadOf<'test-started'>
  const arrived = dateInZone(event.serverTime, base.zone.name)
  return arrived > licence.expiresOn || instruments.some((i) => arrived > i.calibrationUntil)
}

const hoursTo = (from: string, to: string) => secondsBetween(from, to) / 3_600

/**
 * The legal date of an event: that of the utility at the device’s time, whatever the device says of its zone.
 * In logs from before the zone was pinned it is the date where the device stood.
 */
export const legalDate = (
  { plan }: { readonly plan?: Pick<PayloadOf<'planned'>, 'zone'> | undefined },
  event: Pick<EventDraft, 'deviceTime' | 'deviceOffset'>,
): string =>
  plan?.zone
    ? dateInZone(event.deviceTime, plan.zone.name)
    : dateThere(event.deviceTime, event.deviceOffset)

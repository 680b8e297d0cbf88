import type { Id } from '../../schema'
import type { EventKind, PayloadOf, VisitEvent } from './events'

/** What the log adds to every payload; no payload has a field of one of these names. */
interface Envelope {
  readonly eventId: Id<'event'>
  /** ISO time of the device. */
  readonly recordedAt: string
  readonly recordedBy: string
}

/** Kinds whose payload has a field of the envelope, which the envelope would hide: there must be none. */
type Colliding = {
  [K in EventKind]: keyof PayloadOf<K> & keyof Envelope extends never ? never : K
}[EventKind]

/** A payload together with the event that recorded it. */
export type Recorded<T> = T & Envelope

/** Returns what an event says, with when it was recorded and by whom. */
export const recorded = <K extends EventKind>(
  event: VisitEvent<K> & ([Colliding] extends [never] ? unknown : never),
): Recorded<PayloadOf<K>> => ({
  ...event.payload,
  eventId: event.id,
  recordedAt: event.deviceTime,
  recordedBy: event.personName,
})

import type { Id } from '../../schema'
import type { EventKind, PayloadOf, VisitEvent } from './events'

/** A payload together with the event that said it. */
export type Said<T> = T & {
  readonly eventId: Id<'event'>
  readonly at: string
  readonly by: string
}

/** What an event said, with when and by whom. */
export const said = <K extends EventKind>(event: VisitEvent<K>): Said<PayloadOf<K>> => ({
  ...event.payload,
  eventId: event.id,
  at: event.deviceTime,
  by: event.personName,
})

import type { EventDraft, EventKind, PayloadOf } from './events'
import { newestForm } from './upcast'

/** Which entry it is, and when it was made by the device’s clock. */
type About = Pick<EventDraft, 'id' | 'deviceTime' | 'deviceOffset'>

/** An entry to be written, in the newest form of its kind. */
export function draftOf<K extends EventKind>(
  kind: K,
  payload: PayloadOf<K>,
  { id, deviceTime, deviceOffset }: About,
): EventDraft {
  // A pair of kind and payload of that kind is one of the union, which the compiler cannot follow.
  return { id, kind, payload, ...newestForm(kind), deviceTime, deviceOffset } as EventDraft
}

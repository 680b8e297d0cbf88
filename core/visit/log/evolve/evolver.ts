import type { EventKind, VisitEvent } from '../events'
import type { VisitState } from '../state'

/** What events of some kinds do to a visit; a kind that is left out does not compile. */
export type Evolvers<K extends EventKind = EventKind> = {
  readonly [P in K]: (state: VisitState, event: VisitEvent<P>) => VisitState
}

import type { Recorded } from '../recorded'
import type { VisitState } from '../state'

/** Keeps entries whose place others take, or that count no longer, among what the state has replaced. */
export function keepReplaced(
  state: VisitState,
  ...entries: readonly (Recorded<object> | undefined)[]
): Pick<VisitState, 'replaced'> {
  const gone = entries.flatMap((e) => e ?? [])
  return { replaced: gone.length > 0 ? [...state.replaced, ...gone] : state.replaced }
}

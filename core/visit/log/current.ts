import type { VisitState } from './state'
import { type Station, stations } from './stations'

/** The station at which the work stands; the last one when all are done. */
export function currentStation(state: VisitState): Station {
  return stations.find((s) => !state.done.includes(s) && !state.skipped.includes(s)) ?? 'as-left'
}

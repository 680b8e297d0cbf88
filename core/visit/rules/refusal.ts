import type { Library } from '../../library'
import { currentStation } from '../log/current'
import { type Station, stationTitles } from '../log/stations'
import type { VisitState } from '../log/state'

/** Why something may not be done, and what to do instead. */
export interface Refusal {
  readonly why: string
  readonly remedy: string
  /** The station where that is done. */
  readonly station?: Station
}

export interface GuardContext {
  readonly library: Library
  /** The person has just given the password for this very entry. */
  readonly attested?: boolean
  readonly person: {
    readonly roles: readonly string[]
    readonly licences: readonly {
      readonly kind: string
      readonly number: string
      readonly expiresOn: string
    }[]
  }
}

export const refuse = (why: string, remedy: string, station?: Station): Refusal => ({
  why,
  remedy,
  ...(station ? { station } : {}),
})

/** Why a station may not be entered yet, or null. */
export function stationRefusal(state: VisitState, station: Station): Refusal | null {
  if (state.done.includes(station) || station === currentStation(state)) return null
  if (state.skipped.includes(station)) {
    return refuse(
      'The as-found test passed, so nothing was opened.',
      'Carry on with Return.',
      'return',
    )
  }
  const missing = currentStation(state)
  return refuse(
    `${stationTitles[station]} comes after ${stationTitles[missing]}.`,
    `Finish ${stationTitles[missing]} first.`,
    missing,
  )
}

/** Whether the work stands at a station: the refusal, or null. */
export function atStation(state: VisitState, station: Station): Refusal | null {
  const current = currentStation(state)
  if (current === station) return null
  if (state.done.includes(station)) {
    return refuse(
      `${stationTitles[station]} is already finished.`,
      'Correct the entry instead.',
      station,
    )
  }
  return stationRefusal(state, station)
}

import { passes } from '../../rules'
import type { VisitEvent } from '../log/events'
import { type Station, stationTitles } from '../log/stations'
import { legalDate } from '../log/clock'
import { guideRefusal } from './guide'
import { outcomeOfRun } from '../derived/verdicts'
import { atStation, type GuardContext, type Refusal, refuse } from './refusal'
import { currentStation } from '../log/current'
import type { VisitState } from '../log/state'

const OPENED: readonly Station[] = ['make-safe', 'open-up', 'rebuild', 'return']

export function guardRepair(state: VisitState, event: VisitEvent<'repair'>): Refusal | null {
  const current = currentStation(state)
  if (!OPENED.includes(current)) {
    return refuse(
      'repair-too-early',
      'A repair is recorded once the as-found test is on record and the equipment is made safe.',
      `Finish ${stationTitles[current]} first.`,
      current,
    )
  }
  const { temporary } = event.payload
  if (temporary && temporary.until <= legalDate(state, event)) {
    return refuse(
      'date-past',
      'The renew-by date of a temporary repair lies in the past.',
      'Give a date after today.',
    )
  }
  return null
}

export function guardStationDone(
  state: VisitState,
  event: VisitEvent<'station-done'>,
  context: GuardContext,
): Refusal | null {
  const { station, skipTo } = event.payload
  const place = atStation(state, station)
  if (place) return place
  if (skipTo && station !== 'as-found') {
    return refuse(
      'not-passed-as-found',
      'Only a test that passes as found goes straight to Return.',
      'Finish the stations in order.',
    )
  }
  const unfinished = guideRefusal(state, station, context)
  if (unfinished) return unfinished
  if (station === 'arrive') return guardArrived(state)
  if (station === 'as-found') return guardAsFoundDone(state, skipTo !== undefined, context)
  if (station === 'rebuild' && state.repairs.length === 0) {
    return refuse(
      'repair-missing',
      'Nothing is recorded of the repair.',
      'Write in a few words what was done.',
      'rebuild',
    )
  }
  if (station === 'as-left') {
    return refuse(
      'signature-missing',
      'The last station ends with the signature.',
      'Sign the visit.',
      'as-left',
    )
  }
  return null
}

function guardArrived(state: VisitState): Refusal | null {
  if (!state.identity) {
    return refuse(
      'identity-missing',
      'The equipment is not identified.',
      'Compare tag and serial with the plate.',
      'arrive',
    )
  }
  if (state.identity.decision === 'stop') {
    return refuse(
      'wrong-equipment',
      'This is not the equipment of the visit.',
      'Stop the visit, or correct the entry.',
      'arrive',
    )
  }
  return null
}

function guardAsFoundDone(
  state: VisitState,
  skipping: boolean,
  context: GuardContext,
): Refusal | null {
  const outcome = outcomeOfRun(state, 'as-found', context.library)
  if (!outcome && !state.asFoundImpossible) {
    return refuse(
      'as-found-missing',
      'The as-found test is missing: once it is opened, that evidence is gone.',
      state.plan?.packId
        ? 'Take the readings, or record why they cannot be taken.'
        : 'Say how it works as found, or why that cannot be seen.',
      'as-found',
    )
  }
  if (skipping && !passes(outcome)) {
    return refuse(
      'not-passed-as-found',
      'Only a test that passes as found goes straight to Return.',
      'Carry on with Make safe.',
      'make-safe',
    )
  }
  return null
}

/** The function check stands in the place of the field test, where there is none. */
export function guardChecked(state: VisitState, event: VisitEvent<'checked'>): Refusal | null {
  if (state.plan?.packId) {
    return refuse(
      'has-field-test',
      'This kind of equipment has a field test.',
      'Carry it out by the procedure.',
      event.payload.run,
    )
  }
  const { run } = event.payload
  const place = atStation(state, run)
  if (place || !state.checks[run]) return place
  return refuse(
    'check-exists',
    'This check is on record, and a check on record is never replaced.',
    run === 'as-left'
      ? 'Correct the entry, or reopen the visit with the reason and check again after that.'
      : 'Correct the entry.',
    run,
  )
}

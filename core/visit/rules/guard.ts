import {
  correctable,
  type EventDraft,
  type EventKind,
  isKind,
  serverKinds,
  type VisitEvent,
} from '../log/events'
import { foldVisit } from '../log/fold'
import { guardCorrection } from './correction'
import { guardGuide, guardGuideStep, guardGuideWork, guideRefusal } from './guide'
import { guardKitClosed, guardKitTaken } from './kit'
import { guardLock, guardMove, guardProof, lockRefusal } from './safe'
import { guardChecked, guardRepair, guardStationDone } from './station'
import { guardFinish, guardRecord, guardStart } from './fieldTest'
import { outcomeOf } from '../derived/verdicts'
import { atStation, type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from '../log/state'

/**
 * Whether an event may be appended now. The same answer in the browser, before it is recorded, and
 * on the server, when it arrives.
 */
export function guard(
  events: readonly VisitEvent[],
  draft: EventDraft,
  context: GuardContext,
  state: VisitState = foldVisit(events),
): Refusal | null {
  if (serverKinds.includes(draft.kind)) {
    return refuse(`“${draft.kind}” is written by the server alone.`, 'Leave it out.')
  }
  const event = { ...draft, personId: '', personName: '' } as VisitEvent
  if (isKind(event, 'correction')) {
    return guardCorrection(events, state, event, context, guardOpen)
  }
  if (isKind(event, 'correction-asked')) return guardAsked(state, event)
  if (state.signed) {
    return refuse(
      'This visit is signed and closed.',
      'Correct an entry if it is wrong, or plan another visit.',
    )
  }
  if (state.stopped) {
    return refuse('This visit was stopped.', 'Plan another visit to this equipment.')
  }
  return guardOpen(state, event, context)
}

/** Whether an event may stand behind a state of an open visit. */
function guardOpen(state: VisitState, event: VisitEvent, context: GuardContext): Refusal | null {
  if (anyTime.includes(event.kind)) return null
  if (isKind(event, 'valve-moved') || isKind(event, 'hose-moved'))
    return guardMove(state, event, context)
  if (isKind(event, 'identity')) return atStation(state, 'arrive')
  if (isKind(event, 'as-found-impossible')) return atStation(state, 'as-found')
  if (isKind(event, 'test-started')) return guardStart(state, event, context)
  if (isKind(event, 'step-done') || isKind(event, 'reading') || isKind(event, 'answer')) {
    return guardRecord(state, event, context)
  }
  if (isKind(event, 'test-finished')) return guardFinish(state, event.payload.run, context)
  if (isKind(event, 'repair')) return guardRepair(state, event)
  if (isKind(event, 'reopened')) return atStation(state, 'as-left')
  if (isKind(event, 'station-done')) return guardStationDone(state, event, context)
  if (isKind(event, 'guide-chosen')) return guardGuide(state, event, context)
  if (isKind(event, 'zone-proved')) return guardProof(state, event, context)
  if (isKind(event, 'lock')) return guardLock(state, event, context)
  if (isKind(event, 'kit-taken')) return guardKitTaken(state, event, context)
  if (isKind(event, 'kit-closed')) return guardKitClosed(state, event, context)
  if (isKind(event, 'checked')) return guardChecked(state, event)
  if (isKind(event, 'guide-round') || isKind(event, 'guide-timer') || isKind(event, 'guide-redo')) {
    return guardGuideWork(state, event, context)
  }
  if (isKind(event, 'guide-step')) return guardGuideStep(state, event, context)
  if (isKind(event, 'signed')) return guardSign(state, event, context)
  return refuse(`“${event.kind}” is not known here.`, 'Reload the page to get the newest version.')
}

/** Kinds that may be written at any station of an open visit. */
const anyTime: readonly EventKind[] = [
  'note',
  'stopped',
  'guide-value',
  'prepared',
  'photo',
  'result',
]

function guardSign(
  state: VisitState,
  event: VisitEvent<'signed'>,
  context: GuardContext,
): Refusal | null {
  const place = atStation(state, 'as-left')
  if (place) return place
  const outcome = outcomeOf(state, context.library)
  if (!outcome) {
    return refuse(
      'The as-left test is missing.',
      state.plan?.packId ? 'Test again to the same procedure, then sign.' : 'Say how it works now.',
      'as-left',
    )
  }
  if (outcome !== event.payload.outcome) {
    return refuse(
      `The verdict is now “${outcome}”, not “${event.payload.outcome}”.`,
      'Read the verdict again, then sign.',
      'as-left',
    )
  }
  // A failure may be signed as it stands; what passes is left in order.
  const unfinished = outcome.startsWith('pass') ? guideRefusal(state, 'as-left', context) : null
  return unfinished ?? lockRefusal(state)
}

function guardAsked(
  state: VisitState,
  { payload }: VisitEvent<'correction-asked'>,
): Refusal | null {
  const kind = state.kinds[payload.of]
  return kind && correctable.includes(kind)
    ? null
    : refuse('There is no such entry to correct in this visit.', 'Choose an entry of the log.')
}

import { isAssemblyKind, movableElements, portsOf } from '../assembly'
import { InvalidInput } from '../schema'
import { correctable, type EventDraft, isKind, serverKinds, type VisitEvent } from './events'
import { checkDraft, foldVisit } from './fold'
import { guardGuide, guardGuideStep } from './guardGuide'
import { guardRepair, guardStationDone } from './guardStation'
import { guardFinish, guardRecord, guardStart } from './guardTest'
import { finalRun, verdictOf } from './judgement'
import { atStation, type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from './state'

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
  if (isKind(event, 'correction')) return guardCorrection(state, event)
  if (state.signed) {
    return refuse(
      'This visit is signed and closed.',
      'Correct an entry if it is wrong, or plan another visit.',
    )
  }
  if (state.stopped) {
    return refuse('This visit was stopped.', 'Plan another visit to this equipment.')
  }
  if (isKind(event, 'note') || isKind(event, 'stopped')) return null
  if (isKind(event, 'valve-moved') || isKind(event, 'hose-moved')) return guardMove(state, event)
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
  if (isKind(event, 'guide-value')) return null
  if (isKind(event, 'guide-step')) return guardGuideStep(state, event, context)
  if (isKind(event, 'signed')) return guardSign(state, event, context)
  return refuse(`“${draft.kind}” is not known here.`, 'Reload the page to get the newest version.')
}

/** Only what the equipment has can be turned or connected. */
function guardMove(
  state: VisitState,
  event: VisitEvent<'valve-moved'> | VisitEvent<'hose-moved'>,
): Refusal | null {
  const kind = state.plan?.equipment.kind ?? ''
  if (!isAssemblyKind(kind)) return null
  const named = 'element' in event.payload ? event.payload.element : event.payload.port
  const known = 'element' in event.payload ? movableElements(kind) : portsOf(kind)
  if (named === undefined || known.includes(named)) return null
  return refuse(`A ${kind} has no “${named}”.`, `Choose one of ${known.join(', ')}.`)
}

function guardSign(
  state: VisitState,
  event: VisitEvent<'signed'>,
  context: GuardContext,
): Refusal | null {
  const place = atStation(state, 'as-left')
  if (place) return place
  const name = finalRun(state)
  if (!name) {
    return refuse(
      'The as-left test is missing.',
      'Test again to the same procedure, then sign.',
      'as-left',
    )
  }
  const verdict = verdictOf(state, name, context.library)
  if (!verdict) return refuse('There is no verdict yet.', 'Finish the test.', name)
  if (verdict.outcome !== event.payload.outcome) {
    return refuse(
      `The verdict is now “${verdict.outcome}”, not “${event.payload.outcome}”.`,
      'Read the verdict again, then sign.',
      'as-left',
    )
  }
  return null
}

function guardCorrection(state: VisitState, event: VisitEvent<'correction'>): Refusal | null {
  const { of, withdraw, payload } = event.payload
  const kind = state.kinds[of]
  if (!kind)
    return refuse('The entry to correct is not in this visit.', 'Choose an entry of this visit.')
  if (!correctable.includes(kind)) {
    return refuse(
      `An entry of the kind “${kind}” cannot be corrected.`,
      'Add a note that says what was wrong.',
    )
  }
  if (withdraw) {
    return payload
      ? refuse('A withdrawn entry has no new content.', 'Leave the content out.')
      : null
  }
  if (!payload)
    return refuse('The correction says nothing new.', 'Give what the entry should have said.')
  try {
    checkDraft({ ...event, kind, payload } as EventDraft)
    return null
  } catch (error) {
    if (!(error instanceof InvalidInput)) throw error
    return refuse(
      `The corrected entry does not fit: ${error.message}.`,
      'Mend it and send it again.',
    )
  }
}

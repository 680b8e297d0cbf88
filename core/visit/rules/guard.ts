import { guardFigure } from './figure'
import { passes } from '../../rules'
import { type EventDraft, type EventKind, traitsOf, type VisitEvent } from '../log/events'
import type { FoldedLog } from '../log/fold'
import { guardCorrection } from './correction'
import { guardGuide, guardGuideStep, guardGuideWork, guideRefusal } from './guide'
import { guardKitClosed, guardKitTaken } from './kit'
import { guardLock, guardMove, guardProof, lockRefusal } from './safe'
import { guardAdjusted, guardApplied } from './setting'
import { guardChecked, guardRepair, guardStationDone } from './station'
import { guardFinish, guardRecord, guardStart } from './fieldTest'
import { photoRefusal } from './photos'
import { guardAttested, timesRefusal } from './times'
import { orderedOn } from '../derived/guide'
import { legalDate } from '../log/clock'
import { outcomeOf } from '../derived/verdicts'
import { guardUndone } from './undone'
import { atStation, type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from '../log/state'

/**
 * Whether an event may be appended now. The same answer in the browser, before it is recorded, and
 * on the server, when it arrives.
 */
export function guard(log: FoldedLog, draft: EventDraft, context: GuardContext): Refusal | null {
  const { state } = log
  if (traitsOf(draft.kind).by === 'server') return guardOpen(state, unsigned(draft), context)
  if (draft.kind === 'correction') return guardCorrection(log, draft, context, guardOpen)
  if (draft.kind === 'correction-asked') return guardAsked(log, draft.payload.of)
  if (state.signed) {
    return refuse(
      'visit-signed',
      'This visit is signed and closed.',
      'Correct an entry if it is wrong, or plan another visit.',
    )
  }
  if (state.stopped) {
    return refuse(
      'visit-stopped',
      'This visit was stopped.',
      'Plan another visit to this equipment.',
    )
  }
  if (draft.kind === 'undone') return guardUndone(log, draft)
  return guardOpen(state, unsigned(draft), context)
}

/** A draft as an entry that nobody has put a name to yet. */
const unsigned = (draft: EventDraft): VisitEvent => ({ ...draft, personId: '', personName: '' })

/** Whether an event of a kind may stand behind a state of an open visit. */
type Rules = {
  readonly [K in EventKind]: (
    state: VisitState,
    event: VisitEvent<K>,
    context: GuardContext,
  ) => Refusal | null
}

/** At any station of an open visit. */
const always = () => null
const serverAlone = (_: VisitState, event: VisitEvent) =>
  refuse(
    'server-only',
    `“${event.kind}” is written by the server alone.`,
    'Leave it out.',
    undefined,
    { kind: event.kind },
  )

const rules: Rules = {
  planned: serverAlone,
  pinned: serverAlone,
  replanned: serverAlone,
  'replan-asked': always,
  note: always,
  identity: (state) => atStation(state, 'arrive'),
  repair: guardRepair,
  'station-done': guardStationDone,
  reopened: (state) => atStation(state, 'as-left'),
  'valve-moved': guardMove,
  'hose-moved': guardMove,
  applied: guardApplied,
  adjusted: guardAdjusted,
  checked: guardChecked,
  photo: ({ photos }) => photoRefusal(photos.length),
  result: always,
  'as-found-impossible': (state) => atStation(state, 'as-found'),
  'test-started': guardStart,
  'step-done': guardRecord,
  reading: guardRecord,
  answer: guardRecord,
  'test-finished': (state, { payload }, context) => guardFinish(state, payload.run, context),
  'guide-chosen': guardGuide,
  'guide-value': guardFigure,
  'guide-step': guardGuideStep,
  'guide-round': guardGuideWork,
  'guide-timer': guardGuideWork,
  'guide-redo': guardGuideWork,
  'zone-proved': guardProof,
  lock: guardLock,
  prepared: always,
  'kit-taken': guardKitTaken,
  'kit-closed': guardKitClosed,
  correction: always,
  undone: always,
  'correction-asked': always,
  'times-attested': guardAttested,
  stopped: guardStopped,
  signed: guardSign,
  'certificate-issued': serverAlone,
  'certificate-voided': serverAlone,
}

function guardOpen<K extends EventKind>(
  state: VisitState,
  event: VisitEvent<K>,
  context: GuardContext,
): Refusal | null {
  return rules[event.kind](state, event, context)
}

/** Who found that a part is to come says when he comes back with it. */
function guardStopped(
  state: VisitState,
  event: VisitEvent<'stopped'>,
  { library }: GuardContext,
): Refusal | null {
  const { order } = event.payload
  if (!order) {
    return orderedOn(state, library)
      ? refuse(
          'order-missing',
          'A part is to be ordered.',
          'Say what is ordered, and when the work goes on.',
        )
      : null
  }
  return order.comeBackOn > legalDate(state, event)
    ? null
    : refuse(
        'order-date-past',
        'The day of coming back lies in the past.',
        'Give a date after today.',
      )
}

function guardSign(
  state: VisitState,
  event: VisitEvent<'signed'>,
  context: GuardContext,
): Refusal | null {
  const place = atStation(state, 'as-left')
  if (place) return place
  const times = timesRefusal(state, event)
  if (times) return times
  const outcome = outcomeOf(state, context.library)
  if (!outcome) {
    return refuse(
      'as-left-missing',
      'The as-left test is missing.',
      state.plan?.packId ? 'Test again to the same procedure, then sign.' : 'Say how it works now.',
      'as-left',
    )
  }
  if (outcome !== event.payload.outcome) {
    return refuse(
      'outcome-differs',
      `The verdict is now “${outcome}”, not “${event.payload.outcome}”.`,
      'Read the verdict again, then sign.',
      'as-left',
      { outcome: event.payload.outcome },
    )
  }
  // A failure may be signed as it stands; what passes is left in order.
  const unfinished = passes(outcome) ? guideRefusal(state, 'as-left', context) : null
  return unfinished ?? lockRefusal(state)
}

function guardAsked({ events }: FoldedLog, of: string): Refusal | null {
  const entry = events.find((e) => e.id === of)
  return entry && traitsOf(entry.kind).corrected !== 'never'
    ? null
    : refuse(
        'entry-not-in-visit',
        'There is no such entry to correct in this visit.',
        'Choose an entry of the log.',
      )
}

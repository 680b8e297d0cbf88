import { InvalidInput } from '../../schema'
import { checkDraft } from '../log/checkDraft'
import { type EventDraft, type EventKind, traitsOf, type VisitEvent } from '../log/events'
import { type FoldedLog, foldVisit, reachOf } from '../log/fold'
import { upcast } from '../log/upcast'
import { legalDate } from '../log/clock'
import { planOfVisit } from '../derived/pinned'
import { type GuardContext, type Refusal, refuse } from './refusal'
import type { VisitState } from '../log/state'

type Guard = (state: VisitState, event: VisitEvent, context: GuardContext) => Refusal | null

/**
 * A correction passes the guard of the entry that it replaces, on the state in which that entry
 * stood. On a signed visit the tester alone corrects what was measured, with the password.
 */
export function guardCorrection(
  { events, state }: FoldedLog,
  event: EventDraft<'correction'>,
  context: GuardContext,
  guardOpen: Guard,
): Refusal | null {
  const { of, withdraw, payload, version = 1 } = event.payload
  const original = events.find((e) => e.id === of)
  if (!original)
    return refuse(
      'entry-not-in-visit',
      'The entry to correct is not in this visit.',
      'Choose an entry of this visit.',
    )
  if (traitsOf(original.kind).corrected === 'never') {
    return refuse(
      'kind-not-correctable',
      `An entry of the kind “${original.kind}” cannot be corrected.`,
      'Add a note that says what was wrong.',
      undefined,
      { kind: original.kind },
    )
  }
  if (state.corrections[of]?.undone) {
    return refuse(
      'entry-undone',
      'This entry was undone, and a correction would bring it back.',
      'Record it again, or add a note that says what was wrong.',
    )
  }
  const unattested = attestationRefusal(state, original.kind, event, context)
  if (unattested) return unattested
  if (withdraw) {
    return payload
      ? refuse(
          'withdrawal-with-content',
          'A withdrawn entry has no new content.',
          'Leave the content out.',
        )
      : null
  }
  if (!payload)
    return refuse(
      'correction-empty',
      'The correction says nothing new.',
      'Give what the entry should have said.',
    )
  const corrected = inShape({ ...original, payload, version } as VisitEvent)
  if ('why' in corrected) return corrected
  return (
    identityRefusal(upcast(original), corrected) ??
    guardOpen(stateBefore(events, original), corrected, context)
  )
}

/** What was signed for is changed only by who signed, with the password and a licence that is valid. */
function attestationRefusal(
  state: VisitState,
  kind: EventKind,
  event: EventDraft<'correction'>,
  { library, person, attested }: GuardContext,
): Refusal | null {
  if (!state.signed || traitsOf(kind).corrected !== 'attested') return null
  if (!attested) {
    return refuse(
      'signed-by-other',
      'This visit is signed: what was measured is corrected by its tester alone, with the password.',
      'Ask the tester for the correction.',
    )
  }
  const licence = planOfVisit(state, library)?.pack.licence
  const today = legalDate(state, event)
  if (!licence || person.licences.some((l) => l.kind === licence && l.expiresOn >= today))
    return null
  return refuse(
    'license-needed',
    `A correction of this test wants the licence “${licence}”, and you hold none that is valid today.`,
    'Have the renewal entered, or plan another visit.',
    undefined,
    { licence },
  )
}

/** The corrected entry in the newest form, or why its content does not fit. */
function inShape(corrected: VisitEvent): VisitEvent | Refusal {
  try {
    return checkDraft(corrected)
  } catch (error) {
    if (!(error instanceof InvalidInput)) throw error
    return refuse(
      'correction-malformed',
      `The corrected entry does not fit: ${error.why}`,
      'Mend it and send it again.',
    )
  }
}

function identityRefusal(original: VisitEvent, corrected: VisitEvent): Refusal | null {
  const [before, after] = [original, corrected].map(
    (e) => e.payload as Readonly<Record<string, unknown>>,
  )
  const moved = traitsOf(original.kind).identity.find((field) => before?.[field] !== after?.[field])
  return moved
    ? refuse(
        'identity-fixed',
        `A correction cannot make another entry of this one: “${moved}” stays “${String(before?.[moved])}”.`,
        'Withdraw the entry, and record the other one.',
        undefined,
        { field: moved },
      )
    : null
}

/** The state in which an entry stood, what was corrected of it since with it. */
function stateBefore(events: readonly VisitEvent[], entry: VisitEvent): VisitState {
  const before = events.slice(0, events.indexOf(entry))
  const ids = new Set(before.map((e) => e.id))
  const corrections = events.filter((e) => reachOf(e).some((id) => ids.has(id)))
  const earlier = new Set(corrections.map((e) => e.id))
  return foldVisit([...before.filter((e) => !earlier.has(e.id)), ...corrections])
}

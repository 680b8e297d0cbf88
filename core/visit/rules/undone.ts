import { secondsBetween } from '../../calendar'
import { type EventDraft, traitsOf } from '../log/events'
import type { FoldedLog } from '../log/fold'
import { type Refusal, refuse } from './refusal'

/** How long after it was written an entry may be taken back, s; after that it is corrected. */
const SOON_S = 60

/** Taken back is what one press wrote just now: the last entries of the log, whole, and nothing measured before them. */
export function guardUndone(
  { events, state }: FoldedLog,
  { payload, deviceTime }: EventDraft<'undone'>,
): Refusal | null {
  const last = events.slice(-payload.of.length)
  const wanted = new Set(payload.of)
  if (!last.every((e) => wanted.has(e.id)) || last.length < wanted.size) {
    return refuse(
      'not-last',
      'Something was recorded since.',
      'Take the step up again, or correct the entry.',
    )
  }
  const fixed = last.find((e) => !traitsOf(e.kind).undone || state.corrections[e.id])
  if (fixed) {
    return refuse(
      'kind-not-undoable',
      `An entry of the kind “${fixed.kind}” is not taken back.`,
      'Correct it, or add a note that says what was wrong.',
      undefined,
      { kind: fixed.kind },
    )
  }
  const [first] = last
  const seconds = first ? secondsBetween(first.deviceTime, deviceTime) : Infinity
  return seconds >= 0 && seconds <= SOON_S
    ? null
    : refuse(
        'undone-too-late',
        'It was recorded too long ago.',
        'Take the step up again, or correct the entry.',
      )
}

import { MOST_BYTES, MOST_EVENTS } from '@uvanta/contract/limits'
import type { EventDraft } from '@uvanta/core/visit'

/** What is to be sent: an entry, with the press that wrote it; what one press wrote stays together. */
export interface Sendable {
  readonly draft: EventDraft
  /** Id of the first entry of the press. */
  readonly press: string
}

const bytesOf = (draft: EventDraft) => new TextEncoder().encode(JSON.stringify(draft)).length + 1

/**
 * The first entries that go into one sending: at most so many, and so large together; one at least.
 * A press is not cut in two, unless it alone is more than a sending takes.
 */
export function firstPiece<S extends Sendable>(waiting: readonly S[]): S[] {
  let taken = 0
  let bytes = 0
  for (const { draft } of waiting.slice(0, MOST_EVENTS)) {
    bytes += bytesOf(draft)
    if (taken > 0 && bytes > MOST_BYTES) break
    taken++
  }
  const cut = waiting[taken]?.press
  const whole = waiting.slice(0, taken).filter((s) => s.press !== cut)
  return whole.length > 0 ? whole : waiting.slice(0, taken)
}

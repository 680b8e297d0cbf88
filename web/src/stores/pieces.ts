import { MOST_BYTES, MOST_EVENTS } from '@uvanta/contract'
import type { EventDraft } from '@uvanta/core/visit'

const bytesOf = (draft: EventDraft) => new TextEncoder().encode(JSON.stringify(draft)).length + 1

/** The first entries that go into one sending: at most so many, and so large together; one at least. */
export function firstPiece(drafts: readonly EventDraft[]): EventDraft[] {
  const piece: EventDraft[] = []
  let bytes = 0
  for (const draft of drafts.slice(0, MOST_EVENTS)) {
    bytes += bytesOf(draft)
    if (piece.length > 0 && bytes > MOST_BYTES) break
    piece.push(draft)
  }
  return piece
}

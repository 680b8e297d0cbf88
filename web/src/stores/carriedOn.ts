import { appended, emptyLog, type FoldedLog, type VisitEvent } from '@uvanta/core/visit'
import { computed } from 'vue'

/** The log that events fold to; when they only grew, what was folded before is carried on. */
export function carriedOn(events: () => readonly VisitEvent[]) {
  let before: FoldedLog = emptyLog
  return computed(() => {
    const now = events()
    const grew = before.events.every((e, n) => e === now[n])
    before = grew ? appended(before, now.slice(before.events.length)) : appended(emptyLog, now)
    return before
  })
}

import type { VisitEvent } from '@uvanta/core/visit'
import { computed } from 'vue'
import { eventWords } from '@/composables/eventWords'
import { useVisit } from '@/stores/visit'
import { useLogNames } from './useLogNames'

/** The log of the open visit in words, in its order; what was corrected with what it is now. */
export function useLogEntries() {
  const store = useVisit()
  const names = useLogNames()
  /** An entry is put into words once: a press must not wait for all those before it. */
  const wordsOf = computed(() => {
    const known = new WeakMap<VisitEvent, string | null>()
    const called = names.value
    return (event: VisitEvent): string | null => {
      const words = known.get(event)
      if (words !== undefined) return words
      const fresh = eventWords(event, called)
      known.set(event, fresh)
      return fresh
    }
  })
  return computed(() => {
    const { corrections, clockDoubts, asked } = store.state
    const inWords = wordsOf.value
    const doubts = new Map(clockDoubts.map((d) => [d.of, d.doubt]))
    return store.events.flatMap((event) => {
      const words = inWords(event)
      if (!words) return []
      const correction = corrections[event.id]
      return [
        {
          event,
          words,
          correction,
          doubt: doubts.get(event.id),
          asked: asked.find((a) => a.of === event.id),
          now: correction?.payload
            ? eventWords({ ...event, payload: correction.payload } as VisitEvent, names.value)
            : null,
        },
      ]
    })
  })
}
